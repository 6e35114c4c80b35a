#include "core/learn/sample_suggestion.h"

#include <algorithm>
#include <array>

#include "core/color/css_color.h"
#include "core/color/space.h"

namespace chalcedony {
namespace {

/// The middle of a square, so that its edges may lie on something else.
constexpr double kSampledShare = 0.6;

struct DoubtfulTile {
  std::size_t place = 0;
  std::array<double, 3> oklab{};
  std::uint64_t doubtful = 0;
  bool may_be_sample = false;
};

std::vector<DoubtfulTile> doubtful_tiles(const std::vector<DoubtTile>& tiles) {
  std::vector<DoubtfulTile> doubtful;
  for (std::size_t t = 0; t < tiles.size(); ++t) {
    const DoubtTile& tile = tiles[t];
    if (tile.doubtful == 0) continue;
    std::array<double, 3> mean{};
    for (std::size_t c = 0; c < 3; ++c) mean[c] = static_cast<double>(tile.srgb[c]) / tile.pixels;
    doubtful.push_back({t, Color{&spaces::kSrgb, mean}.in(spaces::kOklab), tile.doubtful,
                        2 * tile.doubtful >= tile.pixels});
  }
  return doubtful;
}

bool are_alike(const DoubtfulTile& a, const DoubtfulTile& b) {
  double squares = 0;
  for (std::size_t c = 0; c < 3; ++c)
    squares += (a.oklab[c] - b.oklab[c]) * (a.oklab[c] - b.oklab[c]);
  return squares <= kAlikeInOklab * kAlikeInOklab;
}

/// For each of the tiles the doubtful pixels of those that are alike.
std::vector<std::uint64_t> pixels_alike(const std::vector<DoubtfulTile>& tiles) {
  std::vector<std::uint64_t> pixels(tiles.size());
  for (std::size_t a = 0; a < tiles.size(); ++a)
    for (std::size_t b = 0; b <= a; ++b)
      if (are_alike(tiles[a], tiles[b])) {
        pixels[a] += tiles[b].doubtful;
        if (a != b) pixels[b] += tiles[a].doubtful;
      }
  return pixels;
}

SuggestedSample sample_in(const DoubtTiles& tiles, std::size_t place, std::uint64_t doubtful) {
  const std::uint32_t side = tiles.side();
  const auto sampled = std::max(1u, static_cast<std::uint32_t>(side * kSampledShare));
  const auto column = static_cast<std::uint32_t>(place % tiles.columns());
  const auto row = static_cast<std::uint32_t>(place / tiles.columns());
  const std::uint32_t margin = (side - sampled) / 2;
  return {column * side + margin, row * side + margin, sampled, tiles.tiles()[place].middle,
          doubtful};
}

}  // namespace

std::vector<SuggestedSample> suggested_samples(const DoubtTiles& tiles, std::size_t most) {
  std::uint64_t counted = 0;
  for (const DoubtTile& tile : tiles.tiles()) counted += tile.pixels;
  const std::vector<DoubtfulTile> doubtful = doubtful_tiles(tiles.tiles());
  std::vector<std::uint64_t> stands_for = pixels_alike(doubtful);
  std::vector<bool> stood_for(doubtful.size());
  const auto stand_for = [&](std::size_t tile) {
    stood_for[tile] = true;
    for (std::size_t t = 0; t < doubtful.size(); ++t)
      if (are_alike(doubtful[t], doubtful[tile])) stands_for[t] -= doubtful[tile].doubtful;
  };
  std::vector<SuggestedSample> samples;
  while (samples.size() < most) {
    std::size_t best = doubtful.size();
    for (std::size_t t = 0; t < doubtful.size(); ++t)
      if (doubtful[t].may_be_sample && !stood_for[t] &&
          (best == doubtful.size() || stands_for[t] > stands_for[best]))
        best = t;
    if (best == doubtful.size() || stands_for[best] * 1000 < counted) break;
    samples.push_back(sample_in(tiles, doubtful[best].place, stands_for[best]));
    for (std::size_t t = 0; t < doubtful.size(); ++t)
      if (!stood_for[t] && are_alike(doubtful[best], doubtful[t])) stand_for(t);
  }
  return samples;
}

}  // namespace chalcedony
