// Text that has to do with the room there is.
#ifndef CHALCEDONY_FIGURE_FITTED_TEXT_H_
#define CHALCEDONY_FIGURE_FITTED_TEXT_H_

#include <string>
#include <string_view>

namespace chalcedony {

/// A text (UTF-8) of so many points in so many pixels of the page: the whole of it, or its
/// beginning and its end with an ellipsis between them, since names of files differ at their ends.
/// Letters are taken for as wide as they are on average.
std::string fitted_text(std::string_view text, double width, int points);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_FITTED_TEXT_H_
