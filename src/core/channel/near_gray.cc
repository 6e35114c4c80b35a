#include "core/channel/near_gray.h"

#include <algorithm>
#include <limits>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/channel/near_gray.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// Largest less smallest of r g b.
template <class D>
HWY_INLINE hn::Vec<D> distances_from_gray(D d, const ConstPlanes& rgb, std::size_t i) {
  const auto r = hn::LoadU(d, rgb[0] + i), g = hn::LoadU(d, rgb[1] + i),
             b = hn::LoadU(d, rgb[2] + i);
  return hn::Sub(hn::Max(r, hn::Max(g, b)), hn::Min(r, hn::Min(g, b)));
}

std::size_t count_nearer(const ConstPlanes& rgb, float limit, std::size_t n) {
  const hn::CappedTag<float, kPlanePadding> d;
  const auto most = hn::Set(d, limit);
  std::size_t nearer = 0;
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    auto near = hn::Lt(distances_from_gray(d, rgb, i), most);
    if (i + hn::Lanes(d) > n) near = hn::And(near, hn::FirstN(d, n - i));
    nearer += hn::CountTrue(d, near);
  }
  return nearer;
}

void blank_vectors(const ConstPlanes& rgb, const float* hues, float floor, std::size_t n,
                   float* out) {
  const hn::CappedTag<float, kPlanePadding> d;
  const auto least = hn::Set(d, floor), none = hn::Set(d, std::numeric_limits<float>::quiet_NaN());
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    const auto near = hn::Le(distances_from_gray(d, rgb, i), least);
    hn::StoreU(hn::IfThenElse(near, none, hn::LoadU(d, hues + i)), d, out + i);
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

HWY_EXPORT(count_nearer);
HWY_EXPORT(blank_vectors);

std::uint64_t count_near_gray(const ConstPlanes& rgb, float limit, const Block& block) {
  if (block.counted == nullptr && block.weights == nullptr)
    return HWY_DYNAMIC_DISPATCH(count_nearer)(rgb, limit, block.size);
  std::uint64_t near = 0;
  for (std::size_t p = 0; p < block.size; ++p) {
    const auto [least, most] = std::minmax({rgb[0][p], rgb[1][p], rgb[2][p]});
    if (most - least < limit) near += block.weight(p);
  }
  return near;
}

void blank_hues(const ConstPlanes& rgb, const float* hues, float floor, std::size_t n, float* out) {
  HWY_DYNAMIC_DISPATCH(blank_vectors)(rgb, hues, floor, n, out);
}

}  // namespace chalcedony
#endif
