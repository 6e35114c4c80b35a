// How classes are distributed in channels.
#ifndef CHALCEDONY_FIGURE_CLASS_HISTOGRAM_FIGURE_H_
#define CHALCEDONY_FIGURE_CLASS_HISTOGRAM_FIGURE_H_

#include <cstddef>
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/stats/class_histogram.h"
#include "figure/plot/legend.h"
#include "figure/plot/plot.h"

namespace chalcedony {

struct ShownChannel {
  Channel channel;
  const ClassHistogram* histogram;
  double overlap_percent = 0;             // of two classes on average
  std::optional<double> of_each_percent;  // the same of each of several pictures, on average
};

/// Most channels that a page shows, and of several pictures, whose panels have longer titles.
inline constexpr std::size_t kMostShownChannels = 9, kMostShownOfSeveral = 6;

/// A panel for each channel with a curve for each class, in its color; the channels in their order,
/// the first ones of many.
///
/// Shape     a line of `classes` for each class of the histograms
void add_class_histogram_figure(Plot& plot, const std::filesystem::path& path,
                                const std::string& name, const std::vector<ShownChannel>& channels,
                                const std::vector<LegendLine>& classes);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_CLASS_HISTOGRAM_FIGURE_H_
