// The distinct colors of the counted pixels of a picture.
#ifndef CHALCEDONY_JOB_COUNTED_COLORS_H_
#define CHALCEDONY_JOB_COUNTED_COLORS_H_

#include <vector>

#include "core/color/channel.h"
#include "core/pixel/color_table.h"
#include "job/inputs.h"
#include "job/preview.h"

namespace chalcedony {

struct CountedColors {
  ColorTable table;
  PictureInfo info;  // of the table, read as a picture
  Excluded excluded;
};

/// Whether these channels can be computed from the distinct colors alone.
bool colors_tell(const PictureInfo& info, const std::vector<Channel>& channels);

/// One pass over a picture, for which colors_tell() holds; gathers the preview too.
CountedColors count_colors(CountedPicture& picture, const SharedOptions& options,
                           const Context& context, Preview& preview);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_COUNTED_COLORS_H_
