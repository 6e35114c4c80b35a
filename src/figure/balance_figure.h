// A picture and its histograms before and after it was balanced.
#ifndef CHALCEDONY_FIGURE_BALANCE_FIGURE_H_
#define CHALCEDONY_FIGURE_BALANCE_FIGURE_H_

#include <filesystem>
#include <string>
#include <vector>

#include "core/pixel/thumbnail.h"
#include "figure/histogram_figure.h"
#include "figure/plot/plot.h"

namespace chalcedony {

struct BalanceSide {
  Thumbnail picture;
  std::vector<HistogramSeries> series;  // of one unit
};

/// Before above, after below: the picture and its channel histograms with their medians.
void add_balance_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const std::string& subtitle, const BalanceSide& before,
                        const BalanceSide& after);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_BALANCE_FIGURE_H_
