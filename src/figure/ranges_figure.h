// Figure of how far values reach in each of several pictures.
#ifndef CHALCEDONY_FIGURE_RANGES_FIGURE_H_
#define CHALCEDONY_FIGURE_RANGES_FIGURE_H_

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "figure/plot/legend.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// Where a bar begins and ends, and the dot in it.
struct ValueRange {
  double low, middle, high;
};

/// The color of values of which there is one kind.
inline constexpr const char* kOneKindColor = "#a9bccb";

/// Lists of pictures are in one order.
struct PictureRanges {
  std::string title, subtitle, axis;
  std::vector<std::string> pictures;
  std::vector<LegendLine> kinds;  // of values, as classes; one without a name needs no legend
  // Of each picture those of each kind; none where the picture has no such values.
  std::vector<std::vector<std::optional<ValueRange>>> of;
  std::optional<double> limit = {};  // of the values, a line across all pictures
  bool logarithmic = false;          // all values are above 0 then; else the axis begins at 0
};

/// A bar for each kind of values of each picture, with a dot. Of very many pictures the first ones
/// are shown, and the figure says of how many.
void add_ranges_figure(Plot& plot, const std::filesystem::path& path, const PictureRanges& ranges);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_RANGES_FIGURE_H_
