// Figure of how large regions are in each of several pictures.
#ifndef CHALCEDONY_FIGURE_SIZE_RANGES_FIGURE_H_
#define CHALCEDONY_FIGURE_SIZE_RANGES_FIGURE_H_

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "figure/plot/legend.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// Diameters that 10, 50 and 90 % of the regions do not exceed, all above 0.
struct SizeRange {
  double low, middle, high;
};

/// Lists of pictures are in one order.
struct SizeRanges {
  std::vector<std::string> pictures;
  std::vector<LegendLine> classes;
  // Of each picture those of each class; none where the picture has no region of it.
  std::vector<std::vector<std::optional<SizeRange>>> of;
  std::string unit;
};

/// A bar from 10 to 90 % for each class of each picture, with a dot at the median. Of very many
/// pictures the first ones are shown, and the figure says of how many.
void add_size_ranges_figure(Plot& plot, const std::filesystem::path& path,
                            const SizeRanges& ranges);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_SIZE_RANGES_FIGURE_H_
