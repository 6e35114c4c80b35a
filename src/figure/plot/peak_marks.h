// Peaks in figures of histograms: where they are marked, and the list of them.
#ifndef CHALCEDONY_FIGURE_PLOT_PEAK_MARKS_H_
#define CHALCEDONY_FIGURE_PLOT_PEAK_MARKS_H_

#include <array>
#include <string>
#include <vector>

#include "core/stats/binning.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// A peak to be marked: what it is called in the list, its interval on each axis (low above high
/// runs through 360), the mean color of its pixels and their share.
struct PeakMark {
  std::string name;
  std::array<std::array<double, 2>, 2> interval{};
  std::string color;
  double percent = 0;
};

/// A picture, and below it the peaks with their colors and shares.
void show_with_peaks(Plot& plot, const Box& box, const Thumbnail& picture,
                     const std::vector<PeakMark>& peaks);

/// Calls `use(low, high)` for the one or two pieces of an interval on an axis.
template <class Use>
void for_each_piece(const std::array<double, 2>& interval, const Binning& axis, Use&& use) {
  if (interval[0] <= interval[1]) {
    use(interval[0], interval[1]);
  } else {
    use(interval[0], axis.high());
    use(axis.low(), interval[1]);
  }
}

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_PEAK_MARKS_H_
