// What a file says of its color.
#ifndef CHALCEDONY_IO_METADATA_STATED_COLOR_H_
#define CHALCEDONY_IO_METADATA_STATED_COLOR_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/color/space.h"
#include "io/metadata/exif.h"

namespace chalcedony {

/// What a reader found. Nothing of it is honored yet (color_settling.h), and most formats have few
/// of these.
struct StatedColor {
  const Space* noted = nullptr;   // by a note of this program
  const Space* stored = nullptr;  // by how samples of TIFF are stored: L*a*b*
  /// ITU-T H.273: primaries, transfer, matrix, full range
  std::optional<std::array<std::uint8_t, 4>> code_points;
  std::vector<std::byte> profile;      // ICC.1; empty: none
  bool srgb_chunk = false;             // of PNG
  double gamma = 0;                    // of PNG: stored value over light; 0: not said
  std::optional<Primaries> primaries;  // of PNG, beside its gamma
  ExifColors exif = ExifColors::kNotSaid;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_METADATA_STATED_COLOR_H_
