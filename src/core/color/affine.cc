#include "core/color/affine.h"

#include <algorithm>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/affine.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/planes-inl.h"
#include "core/multiply_add-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// `kShifts` where something is added to the products.
template <bool kShifts>
struct AffineOp {
  explicit AffineOp(const Affine& map) {
    for (std::size_t i = 0; i < 3; ++i) {
      t[i] = static_cast<float>(map.t[i]);
      for (std::size_t j = 0; j < 3; ++j) m[i][j] = static_cast<float>(map.m[i][j]);
    }
  }

  float m[3][3];
  float t[3];

  template <class D, class V>
  HWY_INLINE V row(D d, int i, V a, V b, V c) const {
    const V from_a = hn::Mul(hn::Set(d, m[i][0]), a);
    const V from_ab = multiply_add(hn::Set(d, m[i][1]), b, from_a);
    const V product = multiply_add(hn::Set(d, m[i][2]), c, from_ab);
    return kShifts ? hn::Add(product, hn::Set(d, t[i])) : product;
  }
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& a, V& b, V& c) const {
    const V x = row(d, 0, a, b, c), y = row(d, 1, a, b, c), z = row(d, 2, a, b, c);
    a = x;
    b = y;
    c = z;
  }
};

void affine_planes(const Affine& map, const ConstPlanes& in, const Planes& out, std::size_t n) {
  const bool shifts = std::any_of(map.t.begin(), map.t.end(), [](double t) { return t != 0; });
  if (shifts) {
    map_planes(in, out, n, AffineOp<true>(map));
  } else {
    map_planes(in, out, n, AffineOp<false>(map));
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
HWY_EXPORT(affine_planes);
void apply_affine(const Affine& map, const ConstPlanes& in, const Planes& out, std::size_t n) {
  HWY_DYNAMIC_DISPATCH(affine_planes)(map, in, out, n);
}
}  // namespace chalcedony
#endif
