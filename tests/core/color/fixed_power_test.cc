// The table of a power against the standard library, and the kernels that use it beyond its ends.
#include "core/color/fixed_power.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/color/conversion.h"

using namespace chalcedony;

TEST_CASE("the parts of a fixed power multiply to the power", "[core][color]") {
  const double p = GENERATE(2.4, 1 / 2.4, 563.0 / 256, 256.0 / 563, 1.8, 1 / 1.8, 0.45, 1.0 / 3);
  const double factor = GENERATE(1.0, 269.025);
  const FixedPower power = fixed_power(p, factor);
  double worst = 0;
  for (std::size_t entry = 0; entry < FixedPower::kEntries; ++entry)
    for (int step = 0; step < 5000; ++step) {
      const float m = 1 + static_cast<float>(step) / 5000;
      const float u = m - 1.5f;
      float series = power.series.back();
      for (std::size_t k = FixedPower::kTerms - 1; k-- > 0;) series = power.series[k] + u * series;
      const double x =
          std::ldexp(static_cast<double>(m), static_cast<int>(entry) + FixedPower::kLowest);
      const double got = static_cast<double>(series * power.of_two[entry]);
      worst = std::max(worst, std::abs(got / (factor * std::pow(x, p)) - 1));
    }
  INFO("exponent " << p << ", worst " << worst);
  CHECK(worst <= 3e-7);
}

TEST_CASE("values beyond the table of a power leave their neighbors alone", "[core][color]") {
  // Linear light to a98-rgb is a bare power of 256/563.
  const Conversion conversion(*find_space("srgb-linear"), *find_space("a98-rgb"));
  const std::vector<float> probes{0, 1e-9f, 1e-4f, 0.5f, 200, 1e4f, 1e6f, 3e8f};
  PlaneBuffer alone, together, out_alone, out_together;
  for (std::size_t c = 0; c < 3; ++c)
    for (std::size_t i = 0; i < probes.size(); ++i) together.plane(c)[i] = probes[i];
  conversion.run(read_only(together.planes()), out_together.planes(), probes.size());
  for (std::size_t i = 0; i < probes.size(); ++i) {
    for (std::size_t c = 0; c < 3; ++c) alone.plane(c)[0] = probes[i];
    conversion.run(read_only(alone.planes()), out_alone.planes(), 1);
    const double wanted = 255 * std::pow(static_cast<double>(probes[i]) / 255, 256.0 / 563);
    INFO("linear " << probes[i] << ", wanted " << wanted);
    for (std::size_t c = 0; c < 3; ++c) {
      CHECK(out_together.plane(c)[i] == out_alone.plane(c)[0]);
      CHECK(static_cast<double>(out_alone.plane(c)[0]) ==
            Approx(wanted).epsilon(2e-5).margin(1e-6));
    }
  }
}
