#include "core/palette/look_alikes.h"

#include <algorithm>

#include "core/color/ciede2000.h"

namespace chalcedony {

std::vector<SeenPair> seen_pairs(const Palette& palette) {
  std::vector<std::array<std::array<double, 3>, kColorVisions>> labs(palette.size());
  for (std::size_t i = 0; i < palette.size(); ++i)
    for (std::size_t v = 0; v < kColorVisions; ++v)
      labs[i][v] = seen_with(static_cast<ColorVision>(v), palette[i].color()).in(spaces::kLab);
  std::vector<SeenPair> pairs;
  for (std::size_t first = 0; first < palette.size(); ++first)
    for (std::size_t second = first + 1; second < palette.size(); ++second) {
      SeenPair& pair = pairs.emplace_back(SeenPair{first, second, {}});
      for (std::size_t v = 0; v < kColorVisions; ++v)
        pair.distance[v] = ciede2000(labs[first][v], labs[second][v]);
    }
  return pairs;
}

const SeenPair* closest_pair(const std::vector<SeenPair>& pairs, ColorVision vision) {
  const auto closest =
      std::min_element(pairs.begin(), pairs.end(), [&](const SeenPair& a, const SeenPair& b) {
        return a.seen_with(vision) < b.seen_with(vision);
      });
  return closest == pairs.end() ? nullptr : &*closest;
}

std::vector<LookAlike> look_alikes(const std::vector<SeenPair>& pairs, double apart) {
  std::vector<LookAlike> alike;
  for (const SeenPair& pair : pairs) {
    const ColorVision vision = *std::min_element(
        kVisionDeficiencies.begin(), kVisionDeficiencies.end(),
        [&](ColorVision a, ColorVision b) { return pair.seen_with(a) < pair.seen_with(b); });
    if (pair.seen_with(ColorVision::kFull) >= apart && pair.seen_with(vision) < apart)
      alike.push_back({pair, vision});
  }
  std::stable_sort(alike.begin(), alike.end(), [](const LookAlike& a, const LookAlike& b) {
    return a.pair.seen_with(a.vision) < b.pair.seen_with(b.vision);
  });
  return alike;
}

}  // namespace chalcedony
