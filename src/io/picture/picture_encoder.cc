#include "io/picture/picture_encoder.h"

#include <cstdint>

#include "core/color/space.h"
#include "io/metadata/exif.h"
#include "io/metadata/icc_writer.h"

namespace chalcedony {

std::vector<std::byte> exif_data_of(const PictureSpec& spec) {
  Exif exif;
  exif.description = spec.carried.description;
  exif.captured = spec.carried.captured;
  if (spec.space == &spaces::kSrgb) exif.colors = ExifColors::kSrgb;
  return exif_data(exif);
}

std::vector<std::byte> icc_profile_for(const PictureSpec& spec) {
  if (spec.labels || spec.plane) return {};
  const std::uint32_t colors = spec.shape.channels - (spec.alpha ? 1 : 0);
  if (colors == 1 && (spec.space->is_rgb || spec.space->channel_count == 1))
    return gray_icc_profile_of(*spec.space);
  return colors == 3 && spec.space->is_rgb ? icc_profile_of(*spec.space) : std::vector<std::byte>();
}

}  // namespace chalcedony
