// Figures of channel and joint histograms.
#ifndef CHALCEDONY_FIGURE_HISTOGRAM_FIGURE_H_
#define CHALCEDONY_FIGURE_HISTOGRAM_FIGURE_H_

#include <array>
#include <filesystem>
#include <string>
#include <vector>

#include "core/color/channel.h"
#include "core/pixel/thumbnail.h"
#include "core/stats/histogram.h"
#include "figure/plot.h"

namespace chalcedony {

/// How the counts of bins are shown.
struct CountAxis {
  bool logarithmic = false;
  bool shares = false;  // percent of all that was counted, in place of pixels
};

/// A peak to be marked: what it is called in the list, its interval on each axis (low above high
/// runs through 360), the mean color of its pixels and their share.
struct PeakMark {
  std::string name;
  std::array<std::array<double, 2>, 2> interval{};
  std::string color;
  double percent = 0;
};

struct HistogramSeries {
  Channel channel;
  const Histogram* histogram;
  double median = 0;
  bool has_median = false;
  std::vector<PeakMark> peaks = {};
};

/// One panel of filled curves over their bins, with medians marked.
///
/// Shape     at least one series; all of one unit and the same bins
void draw_histogram_panel(Plot& plot, const Frame& frame,
                          const std::vector<HistogramSeries>& series, const CountAxis& counts);

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
/// that share the unit and the bins of the first one.
///
/// Shape     at least one picture; all with the same channels
void add_histograms_figure(Plot& plot, const std::filesystem::path& path,
                           const std::vector<NamedHistograms>& pictures, const CountAxis& counts);

/// A heat map of two channels with a color bar, the picture beside it. The colors show counts on a
/// logarithmic scale, or on a linear one.
void add_joint_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                      const Channel& first, const Channel& second, const JointHistogram& joint,
                      const std::vector<PeakMark>& peaks, const Thumbnail& picture,
                      bool linear_heat = false);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_HISTOGRAM_FIGURE_H_
