// Figures of channel histograms.
#ifndef CHALCEDONY_FIGURE_HISTOGRAM_FIGURE_H_
#define CHALCEDONY_FIGURE_HISTOGRAM_FIGURE_H_

#include <filesystem>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/pixel/thumbnail.h"
#include "core/stats/histogram.h"
#include "figure/plot/peak_marks.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// How the counts of bins are shown.
struct CountAxis {
  bool logarithmic = false;
  bool shares = false;  // percent of all that was counted, in place of pixels
};

struct HistogramSeries {
  Channel channel;
  const Histogram* histogram;
  double median = 0;
  bool has_median = false;
  std::vector<PeakMark> peaks = {};
};

/// One panel of filled curves over their bins, with medians marked and the names above.
///
/// Shape     at least one series; all of one unit and the same bins
void draw_histogram_panel(Plot& plot, Box box, const std::vector<HistogramSeries>& series,
                          const CountAxis& counts);

/// Filled curves over their bins, one panel for each unit, the picture beside them.
void add_histogram_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                          const std::vector<HistogramSeries>& series, const CountAxis& counts,
                          const Thumbnail& picture);

/// The histograms of a picture among others.
struct NamedHistograms {
  std::string name;
  std::vector<HistogramSeries> series;
};

/// A small panel for each picture, all on one axis, so that they can be compared: of the channels
/// that share the unit and the bins of the first one. `all`: how many there are, these first ones
/// among them.
///
/// Shape     at least one picture; all with the same channels
void add_histograms_figure(Plot& plot, const std::filesystem::path& path,
                           const std::vector<NamedHistograms>& pictures, std::size_t all,
                           const CountAxis& counts);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_HISTOGRAM_FIGURE_H_
