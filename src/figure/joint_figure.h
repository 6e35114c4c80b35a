// Figures of joint histograms of two channels.
#ifndef CHALCEDONY_FIGURE_JOINT_FIGURE_H_
#define CHALCEDONY_FIGURE_JOINT_FIGURE_H_

#include <filesystem>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/pixel/thumbnail.h"
#include "core/stats/histogram.h"
#include "figure/plot/peak_marks.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// A heat map of two channels with a color bar, the picture beside it. The colors show counts on a
/// logarithmic scale, or on a linear one.
void add_joint_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                      const Channel& first, const Channel& second, const JointHistogram& joint,
                      const std::vector<PeakMark>& peaks, const Thumbnail& picture,
                      bool linear_heat = false);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_JOINT_FIGURE_H_
