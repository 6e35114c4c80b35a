// Sums over points by their labels, held against adding one point after the other.
#include "core/cluster/point_sums.h"

#include <catch2/catch.hpp>

#include "tests/support/instruction_sets.h"
#include "tests/support/point_cloud.h"

using namespace chalcedony;
using namespace chalcedony::test;

TEST_CASE("sums by label are those of adding each point to its label", "[core][cluster]") {
  for (const std::size_t dimensions : {1u, 3u, 4u})
    for (const unsigned labels : {1u, 3u, 255u}) {
      INFO(dimensions << " dimensions, " << labels << " labels");
      const LabeledCloud labeled(5, 1000, dimensions, labels, 0);
      const PointCloud& cloud = labeled.cloud;
      const std::vector<std::uint8_t>& label_of = labeled.label_of;
      const std::size_t begin = 3, end = 967, own = dimensions + 1;  // no whole runs
      std::vector<double> plain(labels * own);
      for (std::size_t i = begin; i < end; ++i) {
        double* const to = plain.data() + label_of[i] * own;
        for (std::size_t f = 0; f < dimensions; ++f)
          to[f] += cloud.weights[i] * static_cast<double>(cloud.features[f][i]);
        to[dimensions] += cloud.weights[i];
      }
      std::vector<std::vector<double>> found;
      for_each_instruction_set([&](const std::string&) {
        std::vector<double>& sums = found.emplace_back(labels * own);
        add_weighted_by_label(cloud.view(), label_of.data(), begin, end, sums.data());
      });
      for (const auto& sums : found) {
        CHECK(sums == found.front());  // to the bit, with any instructions
        std::size_t wrong = 0;
        for (std::size_t s = 0; s < sums.size(); ++s)
          wrong += sums[s] == Approx(plain[s]).epsilon(1e-12).margin(1e-9) ? 0 : 1;
        CHECK(wrong == 0);
      }
    }
}
