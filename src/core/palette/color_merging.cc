#include "core/palette/color_merging.h"

#include <array>

#include "core/color/ciede2000.h"

namespace chalcedony {
namespace {

struct MergedColor {
  double pixels = 0;
  std::array<double, 3> oklab{};
  std::array<double, 3> lab{};
  std::vector<std::size_t> groups;
};

struct Pair {
  std::size_t a = 0, b = 0;
  double value = 1e300;
};

/// The pair with the smallest value(a, b), b after a.
template <class Value>
Pair smallest_pair(const std::vector<MergedColor>& colors, const Value& value) {
  Pair best;
  for (std::size_t a = 0; a < colors.size(); ++a)
    for (std::size_t b = a + 1; b < colors.size(); ++b)
      if (const double here = value(colors[a], colors[b]); here < best.value) best = {a, b, here};
  return best;
}

double added_squares(const MergedColor& a, const MergedColor& b) {
  double square = 0;
  for (std::size_t c = 0; c < 3; ++c)
    square += (a.oklab[c] - b.oklab[c]) * (a.oklab[c] - b.oklab[c]);
  return a.pixels * b.pixels / (a.pixels + b.pixels) * square;
}

void merge(std::vector<MergedColor>& colors, const Pair& pair) {
  MergedColor &a = colors[pair.a], &b = colors[pair.b];
  for (std::size_t c = 0; c < 3; ++c)
    a.oklab[c] = (a.pixels * a.oklab[c] + b.pixels * b.oklab[c]) / (a.pixels + b.pixels);
  a.pixels += b.pixels;
  a.lab = lab_of(a.oklab);
  a.groups.insert(a.groups.end(), b.groups.begin(), b.groups.end());
  colors.erase(colors.begin() + static_cast<std::ptrdiff_t>(pair.b));
}

}  // namespace

std::vector<std::uint8_t> merged_groups(const std::vector<GroupLook>& looks, std::size_t most,
                                        double apart) {
  std::vector<MergedColor> colors;
  for (std::size_t g = 0; g < looks.size(); ++g)
    colors.push_back({looks[g].pixels, looks[g].oklab, lab_of(looks[g].oklab), {g}});
  const auto distance = [](const MergedColor& a, const MergedColor& b) {
    return ciede2000(a.lab, b.lab);
  };
  while (colors.size() > 1) {
    const Pair closest = smallest_pair(colors, distance);
    if (closest.value < apart) {
      merge(colors, closest);
    } else if (colors.size() > most) {
      merge(colors, smallest_pair(colors, added_squares));
    } else {
      break;
    }
  }
  std::vector<std::uint8_t> numbers(looks.size());
  for (std::size_t c = 0; c < colors.size(); ++c)
    for (const std::size_t g : colors[c].groups) numbers[g] = static_cast<std::uint8_t>(c + 1);
  return numbers;
}

}  // namespace chalcedony
