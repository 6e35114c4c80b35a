// Which RGB spaces lie within which, against colors converted one by one.
#include "core/gamut/gamut_within.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <random>

#include "core/color/conversion.h"

using namespace chalcedony;

namespace {

/// The largest excess of random colors, many of them on the faces of the cube, in 255ths.
double largest_excess(const Space& inner, const Space& outer) {
  std::mt19937 random(3);
  std::uniform_real_distribution<double> anywhere(0, 255);
  double largest = 0;
  for (int i = 0; i < 600; ++i) {
    std::array<double, 3> color{};
    for (double& v : color)
      v = random() % 3 == 0 ? anywhere(random) : random() % 2 == 0 ? 0.0 : 255.0;
    for (const double v : convert_color(inner, outer, color))
      largest = std::max({largest, -v, v - 255});
  }
  return largest;
}

}  // namespace

TEST_CASE("a space lies within another when none of its colors leaves it", "[core][gamut]") {
  int within = 0, without = 0;
  for (const Space* inner : all_spaces())
    for (const Space* outer : all_spaces()) {
      if (!inner->is_rgb || !outer->is_rgb) continue;
      INFO(inner->id << " in " << outer->id);
      const bool lies = gamut_within(*inner, *outer);
      CHECK(lies == (largest_excess(*inner, *outer) <= 0.01));
      ++(lies ? within : without);
    }
  CHECK(within > 10);
  CHECK(without > 10);
  CHECK(gamut_within(spaces::kSrgb, spaces::kDisplayP3));
  CHECK_FALSE(gamut_within(spaces::kDisplayP3, spaces::kSrgb));
  CHECK_FALSE(gamut_within(spaces::kSrgb, spaces::kLab));
  CHECK_FALSE(gamut_within(spaces::kHsv, spaces::kSrgb));
}

TEST_CASE("only codes that cannot go beyond the full one are known to stay", "[core][gamut]") {
  PictureInfo from, to;
  from.shape.sample = SampleType::kU16;
  from.full_scale = 65535;
  to.space = &spaces::kDisplayP3;
  CHECK_FALSE(may_leave_gamut(from, to));
  from.full_scale = 4095;
  CHECK(may_leave_gamut(from, to));
  from.full_scale = 65535;
  std::swap(from.space, to.space);
  CHECK(may_leave_gamut(from, to));
  std::swap(from.space, to.space);
  from.shape.sample = SampleType::kF32;
  CHECK(may_leave_gamut(from, to));
}
