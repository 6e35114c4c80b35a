// The few fields of Exif metadata that change how a picture is read, or are carried on.
#ifndef CHALCEDONY_IO_METADATA_EXIF_H_
#define CHALCEDONY_IO_METADATA_EXIF_H_

#include <cstddef>
#include <cstdint>
#include <span>
#include <string>
#include <vector>

namespace chalcedony {

/// kDcfOptional: the one that DCF allows beside sRGB, a98-rgb; kUncalibrated: another, unknown one.
enum class ExifColors : std::uint8_t { kNotSaid, kSrgb, kDcfOptional, kUncalibrated };

struct Exif {
  int orientation = 1;  // 1 to 8
  ExifColors colors = ExifColors::kNotSaid;
  double pixels_per_meter_x = 0, pixels_per_meter_y = 0;  // 0: not said
  std::string description;
  std::string captured;  // "2026:05:17 14:03:21"
};

/// Reads Exif data that begins with its TIFF header (`II` or `MM`). Damaged data gives what could
/// be read; it never fails a picture.
///
/// Source    Exif 2.32 (CIPA DC-008), 4.6; DCF 2.0 (CIPA DC-009), 3.2.3.1 (files of its optional
///           color space have the interoperability index R03)
Exif parse_exif(std::span<const std::byte> bytes);

/// The color space that ColorSpace names, with what the interoperability index says.
ExifColors exif_colors(int color_space, const std::string& interoperability);

/// Exif data of the description, the time and, when it is sRGB, the color space; empty when none of
/// them is said.
/// Orientation and resolution are left out: what is written is upright, and formats have their own
/// place for a resolution.
std::vector<std::byte> exif_data(const Exif& exif);

/// Resolution in pixels per meter, of a number in the unit that Exif and TIFF count (2: per inch,
/// 3: per centimeter); 0 for any other unit.
double per_meter(double resolution, int unit);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_METADATA_EXIF_H_
