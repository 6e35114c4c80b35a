// Smooths a class map: each pixel takes the class that is most frequent around it.
#ifndef CHALCEDONY_CORE_TIDY_MAJORITY_H_
#define CHALCEDONY_CORE_TIDY_MAJORITY_H_

#include <cstdint>

#include "core/region/label_grid.h"

namespace chalcedony {

/// Looks at the box of `radius` pixels to each side, as far as it lies in the picture. Pixels
/// without a class count as one more class. Of equally frequent ones the pixel's own stays, else
/// the one with the lowest number is taken.
///
/// Cost      pixels times classes, whatever the radius
void majority(LabelGrid& grid, std::uint32_t radius);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_TIDY_MAJORITY_H_
