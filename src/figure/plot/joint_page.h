// What pages of joint histograms have in common.
#ifndef CHALCEDONY_FIGURE_PLOT_JOINT_PAGE_H_
#define CHALCEDONY_FIGURE_PLOT_JOINT_PAGE_H_

#include <filesystem>
#include <string>

#include "core/stats/histogram.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// The picture stands on the left, the scale of counts on the right.
struct JointPage {
  Box picture, histogram, scale;
};

/// Begins a page whose subtitle says how many pixels were counted, and `more`.
JointPage begin_joint_page(Plot& plot, const std::filesystem::path& path, const std::string& title,
                           const JointHistogram& joint, const std::string& more = {});

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_JOINT_PAGE_H_
