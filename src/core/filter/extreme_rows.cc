#include "core/filter/extreme_rows.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/filter/extreme_rows.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/vector_row-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

template <Extreme kWhich, class V>
HWY_INLINE V extreme_of(V a, V b) {
  return kWhich == Extreme::kLeast ? hn::Min(a, b) : hn::Max(a, b);
}

template <Extreme kWhich, class D>
HWY_INLINE void take_extreme(D d, std::span<const float* const> rows, std::size_t x, float* to) {
  auto extreme = hn::LoadU(d, rows[0] + x);
  for (std::size_t r = 1; r < rows.size(); ++r)
    extreme = extreme_of<kWhich>(extreme, hn::LoadU(d, rows[r] + x));
  hn::StoreU(extreme, d, to + x);
}

template <Extreme kWhich>
void take_row(std::span<const float* const> rows, std::size_t n, float* to) {
  over_row(n, [&](auto d, std::size_t x) HWY_ATTR { take_extreme<kWhich>(d, rows, x, to); });
}

void extreme_row(Extreme which, std::span<const float* const> rows, std::size_t n, float* to) {
  which == Extreme::kLeast ? take_row<Extreme::kLeast>(rows, n, to)
                           : take_row<Extreme::kGreatest>(rows, n, to);
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

HWY_EXPORT(extreme_row);

void extreme_of_rows(Extreme which, std::span<const float* const> rows, std::size_t n, float* to) {
  HWY_DYNAMIC_DISPATCH(extreme_row)(which, rows, n, to);
}

/// What is ahead is read before it is written, however many values a vector has.
void extreme_with_ahead(Extreme which, float* row, std::size_t ahead, std::size_t n) {
  const float* const rows[] = {row, row + ahead};
  extreme_of_rows(which, rows, n, row);
}

}  // namespace chalcedony
#endif
