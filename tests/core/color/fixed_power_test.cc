// The table of a power against the standard library, and the kernels that use it beyond its ends.
#include "core/color/fixed_power.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/color/conversion.h"
#include "core/color/srgb.h"

using namespace chalcedony;

namespace {

/// The largest relative error of series times entry over the whole table.
double worst_of_parts(double p) {
  const FixedPower power = fixed_power(p);
  double worst = 0;
  for (int e = power.kLowest; e < power.kLowest + static_cast<int>(power.kSpan); ++e)
    for (int step = 0; step < 4096; ++step) {
      const float m = 1 + static_cast<float>(step) / 4096;
      const auto piece = static_cast<std::size_t>(step / 256);
      const float r = (m - static_cast<float>(power.middle(piece))) * power.one_middle[piece];
      const float base = power.of_two[power.place_of(e)] * power.of_middle[piece];
      const float more = r * (power.series[0] + r * (power.series[1] + r * power.series[2]));
      const double x = std::ldexp(static_cast<double>(m), e);
      const auto got = static_cast<double>(base + base * more);
      worst = std::max(worst, std::abs(got / std::pow(x, p) - 1));
    }
  return worst;
}

}  // namespace

TEST_CASE("the parts of a fixed power multiply to the power", "[core][color]") {
  const double p = GENERATE(2.4, 1 / 2.4, 563.0 / 256, 256.0 / 563, 1.8, 1 / 1.8, 0.45, 1.0 / 3);
  const double worst = worst_of_parts(p);
  INFO("exponent " << p << ", worst " << worst);
  CHECK(worst <= 3e-7);
}

TEST_CASE("values beyond the tables of a curve leave their neighbors alone", "[core][color]") {
  // Linear light to a98-rgb is a bare power of 256/563; encoding sRGB goes by pieces.
  const bool bare = GENERATE(true, false);
  const Conversion conversion(*find_space("srgb-linear"), *find_space(bare ? "a98-rgb" : "srgb"));
  const std::vector<float> probes{0, 1e-9f, 1e-4f, 0.5f, 200, 281, 1e4f, 1e6f, 3e8f};
  PlaneBuffer alone, together, out_alone, out_together;
  for (std::size_t c = 0; c < 3; ++c)
    for (std::size_t i = 0; i < probes.size(); ++i) together.plane(c)[i] = probes[i];
  conversion.run(read_only(together.planes()), out_together.planes(), probes.size());
  for (std::size_t i = 0; i < probes.size(); ++i) {
    for (std::size_t c = 0; c < 3; ++c) alone.plane(c)[0] = probes[i];
    conversion.run(read_only(alone.planes()), out_alone.planes(), 1);
    const double linear = static_cast<double>(probes[i]) / 255;
    const double wanted = 255 * (bare ? std::pow(linear, 256.0 / 563) : srgb_encoded(linear));
    INFO("linear " << probes[i] << ", wanted " << wanted);
    for (std::size_t c = 0; c < 3; ++c) {
      CHECK(out_together.plane(c)[i] == out_alone.plane(c)[0]);
      CHECK(static_cast<double>(out_alone.plane(c)[0]) ==
            Approx(wanted).epsilon(2e-5).margin(1e-6));
    }
  }
}
