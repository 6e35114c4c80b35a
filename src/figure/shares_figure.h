// The figure of what classes take of each of several pictures.
#ifndef CHALCEDONY_FIGURE_SHARES_FIGURE_H_
#define CHALCEDONY_FIGURE_SHARES_FIGURE_H_

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "figure/plot/legend.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// Shares are percent of the counted pixels; lists of pictures are in one order.
struct SharesFigure {
  /// A share that is told apart from the classes, as of pixels that are like none of them.
  struct Beside {
    std::string title;
    std::vector<double> percents;  // of each picture
  };

  std::string title;
  std::vector<std::string> pictures;
  std::vector<LegendLine> classes;            // with their shares of all pictures together
  std::vector<std::vector<double>> percents;  // of each picture those of each class
  std::optional<Beside> beside = {};
};

/// A bar for each picture, divided among the classes. Of very many pictures a bar is the mean of
/// some that follow each other, and the figure says of how many.
void add_shares_figure(Plot& plot, const std::filesystem::path& path, const SharesFigure& figure);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_SHARES_FIGURE_H_
