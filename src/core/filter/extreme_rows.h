// Extremes of rows of values, place by place.
#ifndef CHALCEDONY_CORE_FILTER_EXTREME_ROWS_H_
#define CHALCEDONY_CORE_FILTER_EXTREME_ROWS_H_

#include <cstddef>
#include <span>

#include "core/filter/extreme.h"

namespace chalcedony {

// None of the values is NaN.

/// to[x] = the extreme of the x-th values of all rows, for x from 0 to n. `to` may be one of them.
void extreme_of_rows(Extreme which, std::span<const float* const> rows, std::size_t n, float* to);

/// row[x] = the extreme of row[x] and row[x + ahead] as it was, for x from 0 to n.
void extreme_with_ahead(Extreme which, float* row, std::size_t ahead, std::size_t n);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_EXTREME_ROWS_H_
