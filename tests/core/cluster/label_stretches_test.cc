// Stretches of labels, held against going through them one by one.
#include "core/cluster/label_stretches.h"

#include <catch2/catch.hpp>
#include <random>
#include <vector>

using namespace chalcedony;

namespace {

/// Labels from 1 to 3 that stay for a while.
std::vector<std::uint8_t> staying_labels(std::size_t n, unsigned seed) {
  std::mt19937 random(seed);
  std::vector<std::uint8_t> labels;
  while (labels.size() < n)
    labels.insert(labels.end(), 1 + random() % 20, static_cast<std::uint8_t>(1 + random() % 3));
  labels.resize(n);
  return labels;
}

}  // namespace

TEST_CASE("stretches cover all labels, each as long as it can be", "[core][cluster]") {
  for (const std::size_t n : {0u, 1u, 7u, 8u, 9u, 500u}) {
    const auto labels = staying_labels(n, static_cast<unsigned>(n));
    std::size_t begin = n / 3, covered = begin;
    bool right = true;
    for_each_stretch(labels.data(), begin, n,
                     [&](std::size_t first, std::size_t last, std::uint8_t label) {
                       right &= first == covered && last > first;
                       right &= first == begin || labels[first - 1] != label;
                       right &= last == n || labels[last] != label;
                       for (std::size_t i = first; i < last; ++i) right &= labels[i] == label;
                       covered = last;
                     });
    INFO(n << " labels");
    CHECK(right);
    CHECK(covered == n);
  }
}
