// Text that has to do with the room there is.
#ifndef CHALCEDONY_FIGURE_PLOT_FITTED_TEXT_H_
#define CHALCEDONY_FIGURE_PLOT_FITTED_TEXT_H_

#include <string>
#include <string_view>
#include <vector>

namespace chalcedony {

/// How many pixels of the page a text (UTF-8) of so many points takes, with some room.
double text_width(std::string_view text, int points);

/// How many pixels the widest of some texts takes.
double widest_text(const std::vector<std::string>& texts, int points);

/// A text in so many pixels of the page: the whole of it where it fits by text_width(), or its
/// beginning and its end with an ellipsis between them, since names of files differ at their ends.
std::string fitted_text(std::string_view text, double width, int points);

/// Names that stand beside each other, each in so many pixels of the page, by fitted_text(). Those
/// that would read alike then show the part in which they differ, between ellipses.
std::vector<std::string> fitted_names(const std::vector<std::string>& names, double width,
                                      int points);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_FITTED_TEXT_H_
