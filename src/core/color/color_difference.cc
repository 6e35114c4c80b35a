#include "core/color/color_difference.h"

#include <algorithm>
#include <cmath>

#include "core/color/ciede2000.h"

namespace chalcedony {
namespace {

void euclidean(const ConstPlanes& first, const ConstPlanes& second, std::size_t n, float* out) {
  for (std::size_t i = 0; i < n; ++i) {
    const float l = first[0][i] - second[0][i], a = first[1][i] - second[1][i],
                b = first[2][i] - second[2][i];
    out[i] = std::sqrt(l * l + a * a + b * b);
  }
}

void cie94(const ConstPlanes& first, const ConstPlanes& second, std::size_t n, float* out) {
  for (std::size_t i = 0; i < n; ++i) {
    const float l = first[0][i] - second[0][i], a = first[1][i] - second[1][i],
                b = first[2][i] - second[2][i];
    const float c1 = std::sqrt(first[1][i] * first[1][i] + first[2][i] * first[2][i]),
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
  switch (formula) {
    case DifferenceFormula::kCiede2000:
      return ciede2000_between(first, second, n, out);
    case DifferenceFormula::kCie94:
      return cie94(first, second, n, out);
    default:
      return euclidean(first, second, n, out);
  }
}

}  // namespace chalcedony
