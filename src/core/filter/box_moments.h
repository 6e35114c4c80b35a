// Mean and standard deviation over a square around each pixel.
#ifndef CHALCEDONY_CORE_FILTER_BOX_MOMENTS_H_
#define CHALCEDONY_CORE_FILTER_BOX_MOMENTS_H_

#include <cstddef>

#include "core/filter/tile.h"

namespace chalcedony {

/// The mean and the standard deviation (divided by n) of the values at most `reach` rows and
/// columns away. Values that are not numbers are left out; where no other is there, both are not a
/// number.
///
/// Shape     `values` is larger than what is written by `margin` on all four sides, at least
///           `reach`; `means` and `deviations` hold rows one after the other, without gaps. Either
///           may be null.
/// Cost      in the number of pixels alone: running sums, in double
void box_moments(const Tile& values, std::size_t margin, std::size_t reach, float* means,
                 float* deviations);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_BOX_MOMENTS_H_
