#include "core/reframe/resampling.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "core/pixel/mirrored.h"

namespace chalcedony {
namespace {

constexpr double kLobes = 3;  // of Lanczos' window

double keys(double x) {
  x = std::abs(x);
  if (x < 1) return (1.5 * x - 2.5) * x * x + 1;
  if (x < 2) return ((-0.5 * x + 2.5) * x - 4) * x + 2;
  return 0;
}

double lanczos(double x) {
  x = std::abs(x);
  if (x < 1e-9) return 1;
  if (x >= kLobes) return 0;
  const double angle = std::numbers::pi * x;
  return kLobes * std::sin(angle) * std::sin(angle / kLobes) / (angle * angle);
}

/// Weights by the old pixel, made to add up to 1.
Taps packed(const std::map<std::uint32_t, double>& weights) {
  double sum = 0;
  for (const auto& [pixel, weight] : weights) sum += weight;
  Taps taps{weights.begin()->first,
            std::vector<float>(weights.rbegin()->first - weights.begin()->first + 1)};
  for (const auto& [pixel, weight] : weights)
    taps.weights[pixel - taps.first] = static_cast<float>(weight / sum);
  return taps;
}

/// The old pixels under [from, to), each by the part of it that is covered.
Taps covered(double from, double to, std::uint32_t in) {
  std::map<std::uint32_t, double> weights;
  const auto last = std::min(in, static_cast<std::uint32_t>(std::ceil(to - 1e-9)));
  for (auto pixel = static_cast<std::uint32_t>(from + 1e-9); pixel < last; ++pixel)
    weights[pixel] = std::min(to, pixel + 1.0) - std::max(from, static_cast<double>(pixel));
  return packed(weights);
}

Taps interpolated(double center, std::uint32_t in, Interpolation by) {
  const double reach = by == Interpolation::kBicubic ? 2 : kLobes;
  std::map<std::uint32_t, double> weights;
  for (double p = std::floor(center - reach); p <= center + reach; ++p) {
    const double weight = by == Interpolation::kBicubic ? keys(p - center) : lanczos(p - center);
    if (weight != 0) weights[mirrored(static_cast<std::int64_t>(p), in)] += weight;
  }
  return packed(weights);
}

}  // namespace

std::vector<Taps> taps_along(std::uint32_t in, std::uint32_t out, Interpolation enlarging) {
  const double step = static_cast<double>(in) / out;
  std::vector<Taps> taps;
  taps.reserve(out);
  for (std::uint32_t i = 0; i < out; ++i) {
    if (enlarging == Interpolation::kNearest || in == out) {
      taps.push_back({std::min(in - 1, static_cast<std::uint32_t>((i + 0.5) * step)), {1.0f}});
    } else if (out < in) {
      taps.push_back(covered(i * step, (i + 1) * step, in));
    } else {
      taps.push_back(interpolated((i + 0.5) * step - 0.5, in, enlarging));
    }
  }
  return taps;
}

}  // namespace chalcedony
