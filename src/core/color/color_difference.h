// How different two colors are, by several formulas.
#ifndef CHALCEDONY_CORE_COLOR_COLOR_DIFFERENCE_H_
#define CHALCEDONY_CORE_COLOR_COLOR_DIFFERENCE_H_

#include <array>
#include <cstddef>

#include "core/color/space.h"
#include "core/planes.h"

namespace chalcedony {

enum class DifferenceFormula {
  kCiede2000,
  kCie94,  // for graphic arts; the first color is the reference
  kCie76,  // Euclidean in Lab
  kOklab,  // Euclidean in oklab
};

/// The space whose planes differences() takes.
const Space& space_of(DifferenceFormula formula);

/// The differences of n pairs of colors.
///
/// Shape     planes of space_of(), padded as in planes.h; `out` padded too
/// Source    CIE 15:2018, sections 8.2 and 8.3; ciede2000.h; Ottosson (2020) for oklab
void differences(DifferenceFormula formula, const ConstPlanes& first, const ConstPlanes& second,
                 std::size_t n, float* out);

/// The differences of one color, in space_of(), to n others; as differences() else.
void differences_to(DifferenceFormula formula, const std::array<double, 3>& first,
                    const ConstPlanes& others, std::size_t n, float* out);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_COLOR_DIFFERENCE_H_
