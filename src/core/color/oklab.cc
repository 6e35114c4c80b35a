// OKLab, as CSS Color 4 defines it from the work of its author (2020): a matrix to cone-like
// responses, cube roots, a matrix to lightness and two opponent axes.
#include "core/color/space.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/oklab.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/planes-inl.h"
#include "core/color/vector_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// With the sign of the value.
struct CubeRoots {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& l, V& m, V& s) const {
    const auto size = [](V v) { return hn::Abs(v); };
    const auto signed_root = [](V v, V root) { return hn::CopySign(root, v); };
    bend_from_zero(d, l, m, s, kThird, size, signed_root);
  }
};

struct Cubes {
  template <class D, class V>
  HWY_INLINE void operator()(D, V& l, V& m, V& s) const {
    l = hn::Mul(hn::Mul(l, l), l);
    m = hn::Mul(hn::Mul(m, m), m);
    s = hn::Mul(hn::Mul(s, s), s);
  }
};

void cube_roots_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, CubeRoots{});
}
void cubes_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, Cubes{});
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/color/kernel_export.h"
namespace chalcedony {
namespace {
CHALCEDONY_KERNEL(cube_roots_planes, cube_roots);
CHALCEDONY_KERNEL(cubes_planes, cubes);

constexpr Affine kXyzToCones{{{{0.8190224379967030, 0.3619062600528904, -0.1288737815209879},
                               {0.0329836539323885, 0.9292868615863434, 0.0361446663506424},
                               {0.0481771893596242, 0.2642395317527308, 0.6335478284694309}}},
                             {}};
constexpr Affine kRootsToOklab{{{{0.2104542683093140, 0.7936177747023054, -0.0040720430116193},
                                 {1.9779985324311684, -2.4285922420485799, 0.4505937096174110},
                                 {0.0259040424655478, 0.7827717124575296, -0.8086757549230774}}},
                               {}};
}  // namespace

namespace spaces {

constinit const Space kOklab{
    .id = "oklab",
    .title = "OKLab, D65",
    .channels = {{{"l", Unit::kNumber, 0, 1},
                  {"a", Unit::kNumber, -0.4, 0.4},
                  {"b", Unit::kNumber, -0.4, 0.4}}},
    .parent = "xyz-d65",
    .from_parent = {Step(kXyzToCones), Step(cube_roots), Step(kRootsToOklab)},
    .to_parent = {Step(inverse(kRootsToOklab)), Step(cubes), Step(inverse(kXyzToCones))}};

}  // namespace spaces
}  // namespace chalcedony
#endif
