#include "core/learn/sample_suggestion.h"

#include <algorithm>
#include <array>
#include <functional>
#include <utility>

#include "core/color/space.h"
#include "core/learn/alike_colors.h"

namespace chalcedony {
namespace {

/// The middle of a square, so that its edges may lie on something else.
constexpr double kSampledShare = 0.6;

Color mean_color(const DoubtTile& tile) {
  std::array<double, 3> mean{};
  for (std::size_t c = 0; c < 3; ++c) mean[c] = static_cast<double>(tile.srgb[c]) / tile.pixels;
  return {&spaces::kSrgb, mean};
}

/// The mean colors of the tiles that hold a doubtful pixel, and their places among all.
struct DoubtfulTiles {
  std::vector<DoubtfulColor> colors;
  std::vector<std::size_t> places;
};

DoubtfulTiles doubtful_tiles(const std::vector<DoubtTile>& tiles) {
  DoubtfulTiles doubtful;
  for (std::size_t t = 0; t < tiles.size(); ++t) {
    const DoubtTile& tile = tiles[t];
    if (tile.doubtful == 0) continue;
    doubtful.colors.push_back({mean_color(tile).in(spaces::kOklab), tile.doubtful,
                               2 * std::uint64_t{tile.doubtful} >= tile.pixels});
    doubtful.places.push_back(t);
  }
  return doubtful;
}

/// Of a tile and those it stands for, in one class if some are, the more even half, and of these
/// the one whose color is nearest to it.
std::size_t even_one(const DoubtTiles& tiles, const DoubtfulTiles& doubtful,
                     const ColorStandIn& group) {
  struct Tile {
    double variance, distance;
    std::size_t place;
    bool has_one_class;
  };
  std::vector<Tile> all;
  const auto add = [&](std::size_t color) {
    if (!doubtful.colors[color].may_stand) return;
    const std::size_t place = doubtful.places[color];
    all.push_back({tiles.tiles()[place].variance(),
                   squared_distance(doubtful.colors[color], doubtful.colors[group.color]), place,
                   tiles.tiles()[place].has_one_class()});
  };
  add(group.color);
  for (const std::size_t other : group.others) add(other);
  const auto has_one_class = [](const Tile& tile) { return tile.has_one_class; };
  if (std::any_of(all.begin(), all.end(), has_one_class))
    std::erase_if(all, std::not_fn(has_one_class));
  const auto middle = all.begin() + static_cast<std::ptrdiff_t>((all.size() - 1) / 2);
  std::nth_element(all.begin(), middle, all.end(), [](const Tile& a, const Tile& b) {
    return std::pair(a.variance, a.place) < std::pair(b.variance, b.place);
  });
  return std::min_element(all.begin(), middle + 1,
                          [](const Tile& a, const Tile& b) {
                            return std::pair(a.distance, a.place) < std::pair(b.distance, b.place);
                          })
      ->place;
}

SuggestedSample sample_in(const DoubtTiles& tiles, std::size_t place, std::uint64_t doubtful) {
  const std::uint32_t side = tiles.side();
  const auto sampled = std::max(1u, static_cast<std::uint32_t>(side * kSampledShare));
  const auto column = static_cast<std::uint32_t>(place % tiles.columns());
  const auto row = static_cast<std::uint32_t>(place / tiles.columns());
  const std::uint32_t margin = (side - sampled) / 2;
  const DoubtTile& tile = tiles.tiles()[place];
  return {{column * side + margin, row * side + margin, sampled, sampled},
          tile.middle,
          mean_color(tile),
          doubtful};
}

}  // namespace

std::vector<SuggestedSample> suggested_samples(const DoubtTiles& tiles, std::size_t most) {
  std::uint64_t counted = 0;
  for (const DoubtTile& tile : tiles.tiles()) counted += tile.pixels;
  const std::uint64_t least = (counted + 999) / 1000;
  const DoubtfulTiles doubtful = doubtful_tiles(tiles.tiles());
  std::vector<SuggestedSample> samples;
  for (const ColorStandIn& one : color_stand_ins(doubtful.colors, most, least))
    samples.push_back(sample_in(tiles, even_one(tiles, doubtful, one), one.pixels));
  return samples;
}

}  // namespace chalcedony
