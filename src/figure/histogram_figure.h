// Figures of channel and joint histograms.
#ifndef CHALCEDONY_FIGURE_HISTOGRAM_FIGURE_H_
#define CHALCEDONY_FIGURE_HISTOGRAM_FIGURE_H_

#include <filesystem>
#include <string>
#include <vector>

#include "core/color/channel.h"
#include "core/pixel/thumbnail.h"
#include "core/stats/histogram.h"
#include "figure/plot.h"

namespace chalcedony {

struct HistogramSeries {
  Channel channel;
  const Histogram* histogram;
  double median = 0;
  bool has_median = false;
};

/// Filled curves over their bins, one panel for each unit, the picture beside them.
void add_histogram_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                          const std::vector<HistogramSeries>& series, const Thumbnail& picture);

/// A heat map of two channels with a color bar, the picture beside it.
void add_joint_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                      const Channel& first, const Channel& second, const JointHistogram& joint,
                      const Thumbnail& picture);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_HISTOGRAM_FIGURE_H_
