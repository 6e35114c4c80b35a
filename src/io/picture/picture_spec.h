// What a picture that is written is to be.
#ifndef CHALCEDONY_IO_PICTURE_PICTURE_SPEC_H_
#define CHALCEDONY_IO_PICTURE_PICTURE_SPEC_H_

#include <optional>
#include <vector>

#include "core/channel/channel.h"
#include "core/color/css_color.h"
#include "core/pixel/raster.h"
#include "io/metadata/carried_facts.h"
#include "io/metadata/class_legend.h"

namespace chalcedony {

/// What is to be written.
struct PictureSpec {
  RasterShape shape;   // of the samples that will come
  bool alpha = false;  // the last channel is straight alpha
  const Space* space = &spaces::kSrgb;
  std::optional<Channel> plane;     // the one channel holds this plane of a space, scaled as it is
  bool labels = false;              // codes, not colors: a mask or a class map
  std::vector<LegendEntry> legend;  // of a class map
  std::vector<Color> palette;       // of a PNG of indexed colors; see indexed_spec()
  int jpeg_quality = 92;
  CarriedFacts carried = {};
};

/// A picture of codes, not colors, of this size: a mask, or numbers.
PictureSpec label_spec(const RasterShape& size, SampleType sample = SampleType::kU8);

/// A class map with these classes: in bytes where they do for its numbers, else in 16 bits.
PictureSpec class_map_spec(const RasterShape& size, std::vector<LegendEntry> legend);

/// A PNG of up to 255 colors: its samples are their numbers, 1 for the first. 0 is no color: black,
/// and transparent with `alpha`.
PictureSpec indexed_spec(const RasterShape& size, std::vector<Color> colors, bool alpha);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_PICTURE_SPEC_H_
