// The figure of what classes take of each of several pictures or regions, or how many regions they
// have there.
#ifndef CHALCEDONY_FIGURE_CLASS_BARS_FIGURE_H_
#define CHALCEDONY_FIGURE_CLASS_BARS_FIGURE_H_

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "figure/plot/legend.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// What bars show: percent, or how many regions there are.
enum class BarsOf { kShares, kRegions };

/// Lists of pictures are in one order.
struct ClassBars {
  /// A share that is told apart from the classes, as of pixels that are like none of them.
  struct Beside {
    std::string title;
    std::vector<double> percents;  // of each picture
  };

  std::string title;
  std::vector<std::string> pictures;        // or what else has a bar
  std::vector<LegendLine> classes;          // with what they have of all pictures together
  std::vector<std::vector<double>> values;  // of each picture those of each class
  std::optional<Beside> beside = {};
  BarsOf of = BarsOf::kShares;
  std::string axis = "percent of the counted pixels";
  std::string subtitle = "shares below are those of all pictures together";
};

/// A bar for each picture, divided among the classes. Of very many pictures a bar is the mean of
/// some that follow each other, and the figure says of how many.
void add_class_bars_figure(Plot& plot, const std::filesystem::path& path, const ClassBars& figure);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_CLASS_BARS_FIGURE_H_
