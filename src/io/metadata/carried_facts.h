// What a file says of its picture beside the pixels, and what is said again of pictures made of it.
#ifndef CHALCEDONY_IO_METADATA_CARRIED_FACTS_H_
#define CHALCEDONY_IO_METADATA_CARRIED_FACTS_H_

#include <array>
#include <cstdint>
#include <string>
#include <vector>

namespace chalcedony {

/// A field of a TIFF that says where on the ground the picture lies, as it is stored.
struct GroundTag {
  std::uint32_t tag = 0;
  std::vector<double> reals;
  std::vector<std::uint16_t> codes;
  std::string text;
};

/// The fields of OGC 19-008r4 (GeoTIFF 1.1): scale, tie points, transformation, keys and their
/// values.
inline constexpr std::array<std::uint32_t, 6> kGroundTags{33550, 33922, 34264, 34735, 34736, 34737};

struct CarriedFacts {
  double pixels_per_meter_x = 0;  // 0: not said
  double pixels_per_meter_y = 0;
  std::string description;
  std::string captured;  // "2026:05:17 14:03:21", as Exif has it
  std::vector<GroundTag> ground;

  bool has_resolution() const { return pixels_per_meter_x > 0 && pixels_per_meter_y > 0; }
};

/// The facts of a picture that was made `factor` times as large, or cropped: it lies elsewhere.
inline CarriedFacts reframed(CarriedFacts facts, double factor_x, double factor_y) {
  facts.pixels_per_meter_x *= factor_x;
  facts.pixels_per_meter_y *= factor_y;
  facts.ground.clear();
  return facts;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_METADATA_CARRIED_FACTS_H_
