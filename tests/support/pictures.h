// Small pictures for tests, made in memory or written by our own writers.
#ifndef CHALCEDONY_TESTS_SUPPORT_PICTURES_H_
#define CHALCEDONY_TESTS_SUPPORT_PICTURES_H_

#include <array>
#include <cstdint>
#include <cstring>
#include <filesystem>
#include <random>
#include <span>
#include <vector>

#include "io/picture/create_picture.h"
#include "io/picture/open_picture.h"
#include "io/picture/picture_file.h"

namespace chalcedony::test {

template <class Sample>
std::vector<std::byte> bytes_of(const std::vector<Sample>& samples) {
  const auto bytes = std::as_bytes(std::span(samples));
  return {bytes.begin(), bytes.end()};
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

/// A mask, or with a legend a class map.
inline void write_labels(const std::filesystem::path& path, std::uint32_t width,
                         const std::vector<std::uint8_t>& labels,
                         const std::vector<LegendEntry>& legend = {}) {
  const auto height = static_cast<std::uint32_t>(labels.size() / width);
  write_picture(path, class_map_spec({width, height}, legend), bytes_of(labels));
}

/// The 8-bit samples of a picture; those of a palette picture are its colors.
inline std::vector<std::uint8_t> bytes_in(const std::filesystem::path& path) {
  PictureFile file = open_picture(path, {});
  return samples_of<std::uint8_t>(file);
}

/// The numbers of a mask or a class map.
inline std::vector<std::uint8_t> labels_in(const std::filesystem::path& path) {
  ReadOptions indices;
  indices.palette_indices = true;
  PictureFile file = open_picture(path, indices);
  return samples_of<std::uint8_t>(file);
}

/// 20 x 10: stripes of 8, 6, 4 and 2 columns in red, blue, light and dark.
inline void write_stripes(const std::filesystem::path& path) {
  const std::array<std::array<std::uint8_t, 3>, 4> colors{
      {{200, 30, 40}, {30, 60, 180}, {240, 240, 235}, {20, 20, 20}}};
  const std::array<int, 4> widths{8, 6, 4, 2};
  std::vector<std::uint8_t> rgb;
  for (int y = 0; y < 10; ++y)
    for (std::size_t c = 0; c < 4; ++c)
      for (int x = 0; x < widths[c]; ++x) rgb.insert(rgb.end(), colors[c].begin(), colors[c].end());
  write_rgb(path, 20, 10, rgb);
}

inline std::vector<std::uint8_t> random_bytes(std::size_t count, unsigned seed = 1) {
  std::mt19937 random(seed);
  std::vector<std::uint8_t> bytes(count);
  for (auto& b : bytes) b = static_cast<std::uint8_t>(random());
  return bytes;
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_PICTURES_H_
