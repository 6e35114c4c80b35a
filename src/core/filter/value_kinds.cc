#include "core/filter/value_kinds.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/filter/value_kinds.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// What some values add to those before.
template <class D>
HWY_INLINE std::size_t look_at_values(D d, const float* values, std::size_t n, ValueKinds& kinds) {
  const hn::RebindToSigned<D> di;
  const auto zero = hn::Zero(d);
  auto nan = hn::Lt(zero, zero), others = nan;  // none so far
  std::size_t x = 0;
  for (; x + hn::Lanes(d) <= n; x += hn::Lanes(d)) {
    const auto value = hn::LoadU(d, values + x);
    const auto within = hn::Min(hn::Max(value, zero), hn::Set(d, 255.0f));
    const auto is_number = hn::Eq(value, value);
    const auto is_code = hn::Eq(value, hn::ConvertTo(d, hn::ConvertTo(di, within)));
    nan = hn::Or(nan, hn::Not(is_number));
    others = hn::Or(others, hn::AndNot(is_code, is_number));
  }
  kinds.nan = kinds.nan || !hn::AllFalse(d, nan);
  kinds.others = kinds.others || !hn::AllFalse(d, others);
  return x;
}

void look_at_row(const float* values, std::size_t n, ValueKinds& kinds) {
  const std::size_t done = look_at_values(hn::ScalableTag<float>(), values, n, kinds);
  look_at_values(hn::CappedTag<float, 1>(), values + done, n - done, kinds);
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

HWY_EXPORT(look_at_row);

ValueKinds kinds_of(const Tile& tile) {
  ValueKinds kinds;
  for (std::size_t y = 0; y < tile.height() && !(kinds.nan && kinds.others); ++y)
    HWY_DYNAMIC_DISPATCH(look_at_row)(tile.row(y), tile.width(), kinds);
  return kinds;
}

}  // namespace chalcedony
#endif
