// What a file says of its color, and which of it counts.
#ifndef CHALCEDONY_IO_STATED_COLOR_H_
#define CHALCEDONY_IO_STATED_COLOR_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/color/space.h"
#include "io/exif.h"

namespace chalcedony {

struct PictureFile;
struct ReadOptions;

/// What a reader found. Nothing of it is honored yet, and most formats have few of these.
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

/// Settles the space of an open picture by what it says (`file.stated`): by the first of these, in
/// the order of StatedColor, that can be honored, else by options.assume, which goes before the
/// rest where code points or a profile cannot be honored. A profile, or a gamma, like a space we
/// have makes it that space; by any other, rows become sRGB floats. What cannot be honored is a
/// warning that says what was taken instead. The channels of labels, and those that --bands chose
/// or is yet to choose, are none of a color profile.
///
/// Source    PNG, third edition, 4.3 (the order of its chunks); Exif 2.32, 4.6.5: a color profile
///           says more than its ColorSpace
void settle_color(PictureFile& file, const ReadOptions& options);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_STATED_COLOR_H_
