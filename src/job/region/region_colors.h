// The colors of an image in the regions of a picture of labels.
#ifndef CHALCEDONY_JOB_REGION_REGION_COLORS_H_
#define CHALCEDONY_JOB_REGION_REGION_COLORS_H_

#include <cstdint>
#include <vector>

#include "core/channel/channel.h"
#include "core/region/region_meter.h"
#include "core/region/region_values.h"
#include "io/picture/label_file.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"

namespace chalcedony {

/// One pass over image and labels together, which gathers the preview of the image too.
///
/// Cost      as RegionValues
/// Errors    InputError when the image is of another size than the labels
std::vector<RegionColors> region_colors(CountedPicture& image, LabelFile& labels,
                                        Connectivity connectivity,
                                        const std::vector<std::uint32_t>& region_of_part,
                                        std::size_t regions, const std::vector<Channel>& channels,
                                        Preview& preview, const SharedOptions& options,
                                        const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_REGION_COLORS_H_
