// Structuring elements: the neighborhood that dilation and erosion look at.
#ifndef CHALCEDONY_CORE_TIDY_ELEMENT_H_
#define CHALCEDONY_CORE_TIDY_ELEMENT_H_

#include <cstdint>
#include <vector>

#include "core/region/label_grid.h"

namespace chalcedony {

enum class ElementShape {
  kDisk,     // centers at most the radius away
  kBox,      // at most the radius away across and down
  kDiamond,  // at most the radius away in steps across and down
  kLine,     // the radius to both sides along a line
};

struct Element {
  ElementShape shape = ElementShape::kDisk;
  double radius = 1;  // pixels; whole but for a disk
  int angle = 0;      // of a line: 0, 45, 90 or 135 degrees, counterclockwise from across
};

inline constexpr double kMostRadius = 10000;

/// A byte a pixel, 1 or 0.
using Flags = std::vector<std::uint8_t>;

/// Which pixels have a pixel that is on within the element around them: the dilation of `on`.
/// Beyond the picture nothing is on.
///
/// Cost      in the number of pixels alone, whatever the radius: by distance transforms
/// Source    distances down the columns as in Meijster, Roerdink and Hesselink (2000); scans of the
///           rows
Flags reached(const Flags& on, std::uint32_t width, std::uint32_t height, const Element& element);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_TIDY_ELEMENT_H_
