// The curves of channel histograms, and the upright axis they stand on.
#ifndef CHALCEDONY_FIGURE_HISTOGRAM_CURVES_H_
#define CHALCEDONY_FIGURE_HISTOGRAM_CURVES_H_

#include <cstddef>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/stats/histogram.h"
#include "figure/plot/peak_marks.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// How the counts of bins are shown.
struct CountAxis {
  bool logarithmic = false;
  bool shares = false;  // percent of all that was counted, in place of pixels

  /// What the axis counts.
  std::string title() const { return shares ? "percent per bin" : "pixels per bin"; }
};

struct HistogramSeries {
  Channel channel;
  const Histogram* histogram;
  double median = 0;
  bool has_median = false;
  std::vector<PeakMark> peaks = {};
};

/// Places in a list of series.
using SeriesPlaces = std::vector<std::size_t>;

/// The series that can share an axis: same unit, same bins, and no peaks, whose bands would
/// overlap.
std::vector<SeriesPlaces> panels_of(const std::vector<HistogramSeries>& series);

/// r, g and b in their own colors, everything else in quiet ones that differ by their number.
std::string series_color(const Channel& channel, std::size_t number);

/// The names of channels that share an axis, and their unit.
std::string shared_axis_title(const std::vector<HistogramSeries>& series,
                              const SeriesPlaces& members);

/// The highest bin of some histograms, as it stands on the axis.
double highest_bin(const std::vector<HistogramSeries>& series, const SeriesPlaces& members,
                   const CountAxis& counts);

/// An upright axis `high` pixels of the page, with room for the highest bin and for `above` pixels
/// on top of it. `numbered`: whether its tics have numbers.
struct CountRange {
  const CountAxis& counts;
  double highest, high;
  double above = 0;
  bool numbered = true;
};

/// Sets range and tics of the upright axis on which these series stand.
void set_count_range(Plot& plot, const HistogramSeries& first, const CountRange& range);

/// What the names of curves say.
enum class CurveNames { kNone, kChannels, kMedians };

/// The parts of a `plot` that draw filled curves with lines along them; medians are marked.
std::string histogram_curves(Plot& plot, const std::vector<HistogramSeries>& series,
                             const SeriesPlaces& members, const CountAxis& counts,
                             CurveNames names);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_HISTOGRAM_CURVES_H_
