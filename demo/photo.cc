#include "demo/photo.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <vector>

#include "core/pixel/road.h"
#include "demo/random.h"
#include "io/picture/create_picture.h"

namespace chalcedony::demo {
namespace {

/// Keeps the first so many colors that come; later new ones become the kept color of their
/// neighborhood.
class ColorLimit {
 public:
  explicit ColorLimit(std::uint32_t most)
      : most_(most), kept_(1u << 18), neighbor_(1u << 15, kNone) {}

  std::uint32_t limited(std::uint32_t rgb) {
    if (kept_[rgb / 64] >> (rgb % 64) & 1) return rgb;
    std::uint32_t& neighbor =
        neighbor_[(rgb >> 9 & 0x7c00) | (rgb >> 6 & 0x3e0) | (rgb >> 3 & 0x1f)];
    if (count_ >= most_ && neighbor != kNone) return neighbor;
    kept_[rgb / 64] |= std::uint64_t{1} << (rgb % 64);
    ++count_;
    neighbor = rgb;
    return rgb;
  }

 private:
  static constexpr std::uint32_t kNone = 0xffffffff;
  std::uint32_t most_;
  std::uint32_t count_ = 0;
  std::vector<std::uint64_t> kept_;
  std::vector<std::uint32_t> neighbor_;
};

/// A sum of plane waves for each channel, evaluated along a row by turning each wave's phase.
class Scene {
 public:
  explicit Scene(const PhotoPlan& plan) : plan_(plan) {
    Random random(plan.seed);
    for (auto& channel : waves_)
      for (std::size_t k = 0; k < channel.size(); ++k) {
        const double periods = std::pow(2.3, static_cast<double>(k));
        channel[k] = {random.uniform(-1, 1) * 6.3 * periods / plan.width,
                      random.uniform(-1, 1) * 6.3 * periods / plan.width, random.uniform(0, 6.3),
                      62.0 / std::pow(1.75, static_cast<double>(k))};
      }
  }

  void row(std::uint32_t y, std::vector<std::uint8_t>& rgb, ColorLimit& limit) const {
    Random grain(mixed_bits(plan_.seed + y));
    std::array<std::array<Phase, kWaves>, 3> phases;
    for (std::size_t c = 0; c < 3; ++c)
      for (std::size_t k = 0; k < kWaves; ++k) phases[c][k] = Phase(waves_[c][k], y);
    for (std::uint32_t x = 0; x < plan_.width; ++x) {
      std::uint32_t code = 0;
      for (std::size_t c = 0; c < 3; ++c) {
        double v = 118 + 3 * grain.normal();
        for (Phase& phase : phases[c]) v += phase.step();
        code = code << 8 | static_cast<std::uint32_t>(std::clamp(v, 0.0, 255.0));
      }
      code = limit.limited(code);
      for (const int shift : {16, 8, 0}) rgb.push_back(static_cast<std::uint8_t>(code >> shift));
    }
  }

 private:
  static constexpr std::size_t kWaves = 7;
  struct Wave {
    double fx, fy, phase, size;
  };
  struct Phase {
    double sine = 0, cosine = 0, turn_sine = 0, turn_cosine = 0, size = 0;
    Phase() = default;
    Phase(const Wave& wave, std::uint32_t y)
        : sine(std::sin(wave.fy * y + wave.phase)),
          cosine(std::cos(wave.fy * y + wave.phase)),
          turn_sine(std::sin(wave.fx)),
          turn_cosine(std::cos(wave.fx)),
          size(wave.size) {}
    double step() {
      const double value = size * sine;
      const double next = sine * turn_cosine + cosine * turn_sine;
      cosine = cosine * turn_cosine - sine * turn_sine;
      sine = next;
      return value;
    }
  };

  PhotoPlan plan_;
  std::array<std::array<Wave, kWaves>, 3> waves_;
};

}  // namespace

void write_photo(const std::filesystem::path& path, const PhotoPlan& plan) {
  PictureSpec spec;
  spec.shape = {plan.width, plan.height, 3, SampleType::kU8};
  const auto writer = create_picture(path, spec);
  const Scene scene(plan);
  ColorLimit limit(plan.colors);
  const std::uint32_t step = rows_per_band(spec.shape, 0);
  for (std::uint32_t first = 0; first < plan.height; first += step) {
    const std::uint32_t rows = std::min(step, plan.height - first);
    std::vector<std::uint8_t> rgb;
    rgb.reserve(rows * spec.shape.row_bytes());
    for (std::uint32_t y = first; y < first + rows; ++y) scene.row(y, rgb, limit);
    const auto bytes = std::as_bytes(std::span(rgb));
    writer->append(writer->encode(first, rows, {bytes.begin(), bytes.end()}));
  }
  writer->finish();
}

}  // namespace chalcedony::demo
