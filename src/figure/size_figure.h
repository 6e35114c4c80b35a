// Figure of how the sizes of regions are distributed.
#ifndef CHALCEDONY_FIGURE_SIZE_FIGURE_H_
#define CHALCEDONY_FIGURE_SIZE_FIGURE_H_

#include <filesystem>
#include <string>
#include <vector>

#include "figure/plot/plot.h"

namespace chalcedony {

/// The regions of a class, as the figure shows them.
struct ShownSizes {
  std::string name, color;
  std::vector<double> diameters;  // of circles of the same areas, from small to large; at least one
};

/// For each class the share of its regions whose diameter is at most so large. The median of each
/// is in the legend. `unit`: of the diameters.
void add_size_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const std::vector<ShownSizes>& classes, const std::string& unit);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_SIZE_FIGURE_H_
