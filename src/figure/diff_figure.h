// Figure of two pictures and the map of their differences.
#ifndef CHALCEDONY_FIGURE_DIFF_FIGURE_H_
#define CHALCEDONY_FIGURE_DIFF_FIGURE_H_

#include <array>
#include <filesystem>
#include <string>

#include "core/pixel/thumbnail.h"
#include "figure/plot/plot.h"

namespace chalcedony {

struct DiffNumbers {
  double mean = 0, percentile_95 = 0;
  double above_percent = 0, tolerance = 0;
};

/// `map` holds differences as gray: 255 for `most` and more.
void add_diff_figure(Plot& plot, const std::filesystem::path& path,
                     const std::array<std::string, 2>& names, const Thumbnail& first,
                     const Thumbnail& second, const Thumbnail& map, double most,
                     const std::string& formula, const DiffNumbers& numbers);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_DIFF_FIGURE_H_
