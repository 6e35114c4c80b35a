// Small pictures for tests, made in memory or written by our own writers.
#ifndef CHALCEDONY_TESTS_SUPPORT_PICTURES_H_
#define CHALCEDONY_TESTS_SUPPORT_PICTURES_H_

#include <cstdint>
#include <cstring>
#include <filesystem>
#include <random>
#include <vector>

#include "io/picture_file.h"
#include "io/picture_writer.h"

namespace chalcedony::test {

template <class Sample>
std::vector<std::byte> bytes_of(const std::vector<Sample>& samples) {
  std::vector<std::byte> bytes(samples.size() * sizeof(Sample));
  std::memcpy(bytes.data(), samples.data(), bytes.size());
  return bytes;
}

template <class Sample>
std::vector<Sample> samples_of(PictureFile& file) {
  const RasterShape& shape = file.info.shape;
  std::vector<Sample> samples(shape.row_bytes() * shape.height / sizeof(Sample));
  file.rows->read_rows(shape.height, reinterpret_cast<std::byte*>(samples.data()));
  return samples;
}

inline PictureSpec spec_of(std::uint32_t width, std::uint32_t height, std::uint32_t channels,
                           SampleType sample = SampleType::kU8) {
  PictureSpec spec;
  spec.shape = {width, height, channels, sample};
  spec.alpha = channels == 2 || channels == 4;
  return spec;
}

/// An 8-bit sRGB picture.
inline void write_rgb(const std::filesystem::path& path, std::uint32_t width, std::uint32_t height,
                      const std::vector<std::uint8_t>& rgb) {
  write_picture(path, spec_of(width, height, 3), bytes_of(rgb));
}

inline std::vector<std::uint8_t> random_bytes(std::size_t count, unsigned seed = 1) {
  std::mt19937 random(seed);
  std::vector<std::uint8_t> bytes(count);
  for (auto& b : bytes) b = static_cast<std::uint8_t>(random());
  return bytes;
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_PICTURES_H_
