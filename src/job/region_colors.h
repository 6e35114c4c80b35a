// The colors of an image in the regions of a picture of labels.
#ifndef CHALCEDONY_JOB_REGION_COLORS_H_
#define CHALCEDONY_JOB_REGION_COLORS_H_

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/color/channel.h"
#include "core/region/region_meter.h"
#include "io/label_file.h"
#include "job/inputs.h"
#include "job/preview.h"

namespace chalcedony {

/// Of one channel in one region; empty where no pixel has a number. A hue has a mean only, that of
/// its directions.
struct ChannelFigures {
  std::optional<double> mean, median, spread;  // spread: standard deviation (n)
};

struct RegionColors {
  std::vector<ChannelFigures> channels;
  std::string mean_color;  // CSS, mean in oklab; empty without pixels
};

/// One pass over image and labels together, which gathers the preview of the image too. Medians
/// come from values rounded to 1/65535 of the usual range of their channel; two bytes for each
/// pixel in a region and channel are held.
///
/// Errors    InputError when the image is of another size than the labels
std::vector<RegionColors> region_colors(CountedPicture& image, LabelFile& labels,
                                        Connectivity connectivity,
                                        const std::vector<std::uint32_t>& region_of_part,
                                        std::size_t regions, const std::vector<Channel>& channels,
                                        Preview& preview, const SharedOptions& options,
                                        const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_COLORS_H_
