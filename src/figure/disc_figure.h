// A joint histogram of a hue as a disc.
#ifndef CHALCEDONY_FIGURE_DISC_FIGURE_H_
#define CHALCEDONY_FIGURE_DISC_FIGURE_H_

#include <filesystem>
#include <string>

#include "core/channel/channel.h"
#include "core/pixel/thumbnail.h"
#include "core/stats/histogram.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// The bins of a hue and another channel on a disc: the hue is the angle, 0 to the right and 90 up,
/// the other channel the distance from the center; a ring shows the hues. The picture stands
/// beside it.
///
/// Shape     `first` is a hue
void add_disc_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const Channel& first, const Channel& second, const JointHistogram& joint,
                     const Thumbnail& picture, bool linear_heat);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_DISC_FIGURE_H_
