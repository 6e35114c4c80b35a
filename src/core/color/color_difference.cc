#include "core/color/color_difference.h"

#include <algorithm>
#include <cmath>

#include "core/color/ciede2000.h"

namespace chalcedony {
namespace {

// `first(channel, i)` is a channel of the first color of pair i.
template <class First>
void euclidean(const First& first, const ConstPlanes& second, std::size_t n, float* out) {
  for (std::size_t i = 0; i < n; ++i) {
    const float l = first(0, i) - second[0][i], a = first(1, i) - second[1][i],
                b = first(2, i) - second[2][i];
    out[i] = std::sqrt(l * l + a * a + b * b);
  }
}

template <class First>
void cie94(const First& first, const ConstPlanes& second, std::size_t n, float* out) {
  for (std::size_t i = 0; i < n; ++i) {
    const float l = first(0, i) - second[0][i], a = first(1, i) - second[1][i],
                b = first(2, i) - second[2][i];
    const float c1 = std::sqrt(first(1, i) * first(1, i) + first(2, i) * first(2, i)),
                c2 = std::sqrt(second[1][i] * second[1][i] + second[2][i] * second[2][i]);
    const float c = c1 - c2, h2 = std::max(0.0f, a * a + b * b - c * c);
    const float sc = 1 + 0.045f * c1, sh = 1 + 0.015f * c1;
    out[i] = std::sqrt(l * l + c / sc * (c / sc) + h2 / (sh * sh));
  }
}

}  // namespace

const Space& space_of(DifferenceFormula formula) {
  return formula == DifferenceFormula::kOklab ? spaces::kOklab : spaces::kLab;
}

void differences(DifferenceFormula formula, const ConstPlanes& first, const ConstPlanes& second,
                 std::size_t n, float* out) {
  if (formula == DifferenceFormula::kCiede2000) return ciede2000_between(first, second, n, out);
  const auto values = [&](std::size_t channel, std::size_t i) { return first[channel][i]; };
  return formula == DifferenceFormula::kCie94 ? cie94(values, second, n, out)
                                              : euclidean(values, second, n, out);
}

void differences_to(DifferenceFormula formula, const std::array<double, 3>& first,
                    const ConstPlanes& others, std::size_t n, float* out) {
  if (formula == DifferenceFormula::kCiede2000) return ciede2000_to(first, others, n, out);
  const std::array<float, 3> color{static_cast<float>(first[0]), static_cast<float>(first[1]),
                                   static_cast<float>(first[2])};
  const auto values = [&](std::size_t channel, std::size_t) { return color[channel]; };
  return formula == DifferenceFormula::kCie94 ? cie94(values, others, n, out)
                                              : euclidean(values, others, n, out);
}

}  // namespace chalcedony
