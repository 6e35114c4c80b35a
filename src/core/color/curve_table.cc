#include "core/color/curve_table.h"

#include <algorithm>

#include "core/planes.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/curve_table.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

void follow_curve(const float* in, float* out, std::size_t n, const float* table, float low,
                  float per_step, float last) {
  const hn::CappedTag<float, kPlanePadding> d;
  const hn::RebindToSigned<decltype(d)> di;
  const auto zero = hn::Zero(d);
  const auto one = hn::Set(di, 1);
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    const auto v = hn::LoadU(d, in + i);
    const auto place = hn::Mul(hn::Sub(v, hn::Set(d, low)), hn::Set(d, per_step));
    // What is not a number is looked up as 0.
    const auto inside = hn::IfThenElseZero(hn::Gt(place, zero), hn::Min(place, hn::Set(d, last)));
    const auto step = hn::ConvertTo(di, inside);
    const auto before = hn::GatherIndex(d, table, step);
    const auto after = hn::GatherIndex(d, table, hn::Add(step, one));
    const auto value =
        hn::Add(before, hn::Mul(hn::Sub(after, before), hn::Sub(inside, hn::ConvertTo(d, step))));
    hn::StoreU(hn::IfThenElse(hn::Eq(v, v), value, v), d, out + i);
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {
HWY_EXPORT(follow_curve);
}  // namespace

double table_at(const std::vector<double>& table, double share) {
  const double place = std::clamp(share, 0.0, 1.0) * static_cast<double>(table.size() - 1);
  const auto step = std::min(static_cast<std::size_t>(place), table.size() - 2);
  return table[step] + (table[step + 1] - table[step]) * (place - static_cast<double>(step));
}

void CurveTable::apply(const float* in, float* out, std::size_t n) const {
  HWY_DYNAMIC_DISPATCH(follow_curve)(in, out, n, values_.data(), low_, per_step_, kCodes - 1);
}

}  // namespace chalcedony
#endif
