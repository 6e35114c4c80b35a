// The side of a pixel in the scene, for areas and lengths.
#ifndef CHALCEDONY_JOB_PICTURE_PIXEL_SIZE_H_
#define CHALCEDONY_JOB_PICTURE_PIXEL_SIZE_H_

#include <cstdint>
#include <string>

namespace chalcedony {

struct PixelSize {
  double side = 1;
  std::string unit = "px";

  double length(double pixels) const { return pixels * side; }
  /// In the square of the unit.
  double area(std::uint64_t pixels) const { return static_cast<double>(pixels) * side * side; }
  bool is_known() const { return unit != "px"; }
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_PIXEL_SIZE_H_
