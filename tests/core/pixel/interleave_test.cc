// Three channels at once against one at a time, which is written down sample by sample.
#include "core/pixel/interleave.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <cstring>
#include <limits>

#include "tests/support/instruction_sets.h"
#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

const std::array<SampleScale, 3> kScales{{{255.0 / 65535, 0}, {250.0 / 255, -125}, {1, 0}}};

/// Samples of every kind: codes, and floats with what is no number among them.
std::vector<std::byte> samples_of(SampleType sample, std::size_t count) {
  if (sample != SampleType::kF32) return bytes_of(random_bytes(count * bytes_per_sample(sample)));
  std::vector<float> floats;
  for (const std::uint8_t byte : random_bytes(count))
    floats.push_back(byte % 17 == 0 ? std::numeric_limits<float>::quiet_NaN()
                                    : static_cast<float>(byte) / 7 - 12);
  return bytes_of(floats);
}

bool same_bits(const float* a, const float* b, std::size_t n) {
  return std::memcmp(a, b, n * sizeof(float)) == 0;
}

}  // namespace

TEST_CASE("three channels are read and written as one is", "[core][pixel]") {
  const auto sample = GENERATE(SampleType::kU8, SampleType::kU16, SampleType::kF32);
  const std::uint32_t channels = GENERATE(3u, 4u, 5u);
  for (const std::size_t n : {1u, 15u, 16u, 17u, 100u, 1024u}) {
    INFO(bytes_per_sample(sample) << " bytes a sample, " << channels << " channels, " << n
                                  << " pixels");
    const auto stored = samples_of(sample, n * channels);
    PlaneBuffer together, alone;
    read_planes(stored.data(), channels, sample, kScales, together.planes(), n);
    std::vector<std::byte> written(stored.size()), plainly(stored.size());
    for (std::uint32_t c = 0; c < 3; ++c) {
      read_plane(stored.data(), channels, sample, c, kScales[c], alone.plane(c), n);
      CHECK(same_bits(together.plane(c), alone.plane(c), n));
      // Halves and what lies beyond the codes are rounded and clipped alike.
      for (std::size_t i = 0; i < n; i += 5) alone.plane(c)[i] += static_cast<float>(i % 3) - 0.5f;
      if (n > 20) alone.plane(c)[n - 3] = 1e9f;
    }
    write_planes(read_only(alone.planes()), n, channels, sample, kScales, written.data());
    for (std::uint32_t c = 0; c < 3; ++c)
      write_plane(alone.plane(c), n, channels, sample, c, kScales[c], plainly.data());
    CHECK(written == plainly);
  }
}

TEST_CASE("the only channel is read and written as one of two is", "[core][pixel][simd]") {
  const auto sample = GENERATE(SampleType::kU8, SampleType::kU16, SampleType::kF32);
  const std::size_t bytes = bytes_per_sample(sample);
  for (const std::size_t n : {1u, 16u, 17u, 1000u})
    for (const SampleScale& scale : kScales) {
      INFO(bytes << " bytes a sample, " << n << " pixels");
      const auto alone = samples_of(sample, n);
      std::vector<std::byte> of_two(2 * alone.size());
      for (std::size_t i = 0; i < n; ++i)
        std::memcpy(of_two.data() + 2 * i * bytes, alone.data() + i * bytes, bytes);
      PlaneBuffer planes(2);
      read_plane(alone.data(), 1, sample, 0, scale, planes.plane(0), n);
      read_plane(of_two.data(), 2, sample, 0, scale, planes.plane(1), n);
      CHECK(same_bits(planes.plane(0), planes.plane(1), n));
      for (std::size_t i = 0; i < n; i += 3)
        planes.plane(0)[i] = static_cast<float>(i % 7) * 100 - 99.5f;
      for_each_instruction_set([&](const char* name) {
        INFO(name);
        std::vector<std::byte> written(alone.size()), plainly(of_two.size());
        write_plane(planes.plane(0), n, 1, sample, 0, scale, written.data());
        write_plane(planes.plane(0), n, 2, sample, 0, scale, plainly.data());
        std::size_t wrong = 0;
        for (std::size_t i = 0; i < n; ++i)
          wrong += std::memcmp(written.data() + i * bytes, plainly.data() + 2 * i * bytes, bytes)
                       ? 1
                       : 0;
        CHECK(wrong == 0);
      });
    }
}

TEST_CASE("three channels leave the fourth as it is", "[core][pixel][simd]") {
  const auto sample = GENERATE(SampleType::kU8, SampleType::kU16, SampleType::kF32);
  constexpr std::size_t kPixels = 37;
  const std::size_t bytes = bytes_per_sample(sample);
  const auto before = samples_of(sample, 4 * kPixels);
  PlaneBuffer planes;
  for (std::size_t c = 0; c < 3; ++c)
    for (std::size_t i = 0; i < kPixels; ++i)
      planes.plane(c)[i] = static_cast<float>(i * 11 + c) - 30.25f;
  for_each_instruction_set([&](const char* name) {
    INFO(name);
    auto written = before, plainly = before;
    write_planes(read_only(planes.planes()), kPixels, 4, sample, kScales, written.data());
    for (std::uint32_t c = 0; c < 3; ++c)
      write_plane(planes.plane(c), kPixels, 4, sample, c, kScales[c], plainly.data());
    CHECK(written == plainly);
    CHECK(std::memcmp(written.data() + 3 * bytes, before.data() + 3 * bytes, bytes) == 0);
  });
}

TEST_CASE("8-bit codes of 0-255 are rounded to the nearest, halves up", "[core][pixel]") {
  const std::array<SampleScale, 3> as_they_are{};
  // Each code with five values around it; 200 codes at a time, or the rest of them, so that whole
  // vectors and some pixels more are written.
  const std::array<float, 5> around{-0.5f, -0.499f, 0, 0.499f, 0.5f};
  const int first = GENERATE(0, 200), end = first == 0 ? 200 : 256;
  const std::size_t n = static_cast<std::size_t>(end - first) * around.size();
  PlaneBuffer planes;
  std::vector<std::byte> wanted(3 * n), written(3 * n);
  for (std::size_t i = 0; i < n; ++i) {
    const int code = first + static_cast<int>(i / around.size());
    const bool half_above = i % around.size() == 4;
    for (std::size_t c = 0; c < 3; ++c) {
      planes.plane(c)[i] = static_cast<float>(code) + around[i % around.size()];
      wanted[3 * i + c] = static_cast<std::byte>(half_above ? std::min(code + 1, 255) : code);
    }
  }
  write_planes(read_only(planes.planes()), n, 3, SampleType::kU8, as_they_are, written.data());
  CHECK(written == wanted);

  PlaneBuffer back;
  read_planes(wanted.data(), 3, SampleType::kU8, as_they_are, back.planes(), n);
  for (std::size_t i = 0; i < n; ++i)
    REQUIRE(back.plane(1)[i] == static_cast<float>(std::to_integer<int>(wanted[3 * i + 1])));
}
