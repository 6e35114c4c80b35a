// Sums of values that are weighed alike on both sides.
#ifndef CHALCEDONY_CORE_FILTER_SYMMETRIC_SUMS_H_
#define CHALCEDONY_CORE_FILTER_SYMMETRIC_SUMS_H_

#include <cstddef>
#include <vector>

namespace chalcedony {

/// For x from 0 to n: weights[0] * middle[x] + weights[d] * (middle[x - d * step] +
/// middle[x + d * step]) for d = 1, 2, ..., added up in this order. `out` is none of the values.
void symmetric_sums(const float* middle, std::ptrdiff_t step, const std::vector<float>& weights,
                    std::size_t n, float* out);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_SYMMETRIC_SUMS_H_
