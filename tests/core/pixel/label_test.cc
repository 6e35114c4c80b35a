#include "core/pixel/label.h"

#include <catch2/catch.hpp>
#include <vector>

using namespace chalcedony;

TEST_CASE("labels are stored in bytes where they do", "[core][pixel]") {
  CHECK(sample_for_labels(0) == SampleType::kU8);
  CHECK(sample_for_labels(255) == SampleType::kU8);
  CHECK(sample_for_labels(256) == SampleType::kU16);
  CHECK(sample_for_labels(kMostClasses) == SampleType::kU16);
}

TEST_CASE("labels say which pixels have a class", "[core][pixel]") {
  const std::vector<Label> labels{0, 1, 256, 0, 65535};
  std::vector<std::uint8_t> flags(5, 9);
  flag_labels(labels.data(), labels.size(), flags.data());
  CHECK(flags == std::vector<std::uint8_t>{0, 1, 1, 0, 1});
}

TEST_CASE("labels read back as they were stored", "[core][pixel]") {
  for (const SampleType sample : {SampleType::kU8, SampleType::kU16}) {
    const auto largest = static_cast<Label>(sample == SampleType::kU8 ? 255 : kLabels - 1);
    std::vector<Label> labels(100), read(labels.size());
    for (std::size_t i = 0; i < labels.size(); ++i) labels[i] = static_cast<Label>(largest - i);
    const std::size_t bytes = labels.size() * bytes_per_sample(sample);
    // A byte more shows that nothing is written beyond the last sample.
    std::vector<std::byte> stored(bytes + 1, std::byte{77});
    store_labels(labels.data(), labels.size(), sample, stored.data());
    CHECK(stored[0] == static_cast<std::byte>(largest & 255));
    CHECK(stored[bytes] == std::byte{77});
    read_labels(stored.data(), read.size(), sample, read.data());
    CHECK(read == labels);
  }
}
