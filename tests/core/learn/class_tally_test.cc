// Pixels of each class, held against counting them one by one.
#include "core/learn/class_tally.h"

#include <catch2/catch.hpp>

#include "core/pixel/uncounted.h"
#include "tests/support/instruction_sets.h"
#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

template <class Number>
std::vector<std::uint64_t> plain_counts(const std::vector<Number>& labels, std::size_t largest) {
  std::vector<std::uint64_t> counts(largest + 1);
  for (const Number label : labels) ++counts[label];
  return counts;
}

std::vector<std::uint8_t> random_labels(std::size_t n, std::size_t largest) {
  auto labels = random_bytes(n);
  for (auto& label : labels) label = static_cast<std::uint8_t>(label % (largest + 1));
  return labels;
}

}  // namespace

TEST_CASE("labels are counted, be they few or many", "[core][learn]") {
  // 33 and 255 are counted by their codes, the others by comparing.
  for (const std::size_t largest : {1u, 8u, 32u, 33u, 255u}) {
    for (const std::size_t n : {0u, 1u, 31u, 33u, 1024u}) {
      const auto labels = random_labels(n, largest);
      for_each_instruction_set([&](const char* name) {
        INFO("labels to " << largest << ", " << n << " pixels, " << name);
        ClassTally tally(largest);
        tally.add(labels.data(), n);
        ClassTally once_more = tally;
        once_more += tally;
        CHECK(tally.take() == plain_counts(labels, largest));
        CHECK(tally.take() == std::vector<std::uint64_t>(largest + 1));
        std::vector<std::uint64_t> twice = plain_counts(labels, largest);
        for (auto& count : twice) count *= 2;
        CHECK(once_more.take() == twice);
      });
    }
  }
}

TEST_CASE("labels of 16 bits are counted too", "[core][learn]") {
  const std::vector<Label> labels{0, 300, 7, 300, 299};
  ClassTally tally(300);
  tally.add(labels.data(), labels.size());
  CHECK(tally.take() == plain_counts(labels, 300));
}

TEST_CASE("pixels that do not count have no class", "[core][learn]") {
  const std::vector<std::uint8_t> counted{1, 0, 1, 0, 1};
  Block block;
  block.size = 5;
  block.counted = counted.data();
  block.counted_size = 3;
  for (const std::size_t largest : {3u, 200u}) {
    std::vector<std::uint8_t> labels{1, 2, 0, 0, 3};
    clear_uncounted(block, labels.data());
    CHECK(labels == std::vector<std::uint8_t>{1, 0, 0, 0, 3});
    ClassTally tally(largest);
    tally.add(reinterpret_cast<const std::byte*>(labels.data()), SampleType::kU8, block);
    std::vector<std::uint64_t> expected(largest + 1);
    expected[0] = expected[1] = expected[3] = 1;
    CHECK(tally.take() == expected);
  }
  block.counted = nullptr;
  std::vector<std::uint8_t> labels{1, 2, 0, 0, 3};
  clear_uncounted(block, labels.data());
  CHECK(labels[1] == 2);
}
