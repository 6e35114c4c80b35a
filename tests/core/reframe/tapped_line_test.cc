// Rows that are scaled, against one value after the other.
#include "core/reframe/tapped_line.h"

#include <catch2/catch.hpp>
#include <random>

#include "core/planes.h"
#include "tests/support/instruction_sets.h"

using namespace chalcedony;

TEST_CASE("a scaled row has the bits of values taken one by one", "[core][reframe]") {
  constexpr std::uint32_t kOld = 203;
  std::mt19937 random(3);
  std::uniform_real_distribution<float> value(0, 255);
  std::vector<float> row(kOld + kPlanePadding);
  for (float& v : row) v = value(random);
  for (const std::uint32_t size : {1u, 7u, 64u, 101u, 202u, 203u, 204u, 500u})
    for (const Interpolation by :
         {Interpolation::kBicubic, Interpolation::kLanczos, Interpolation::kNearest}) {
      const std::vector<Taps> taps = taps_along(kOld, size, by);
      const TappedLine line(taps);
      REQUIRE(line.size() == size);
      std::vector<float> one_by_one;
      for (const Taps& each : taps) {
        float sum = 0;
        for (std::size_t t = 0; t < each.weights.size(); ++t)
          sum += each.weights[t] * row[each.first + t];
        one_by_one.push_back(sum);
      }
      test::for_each_instruction_set([&](const std::string& name) {
        INFO(name << ", " << size);
        std::vector<float> out(size + kPlanePadding);
        line.run(row.data(), out.data());
        out.resize(size);
        CHECK(out == one_by_one);
      });
    }
}
