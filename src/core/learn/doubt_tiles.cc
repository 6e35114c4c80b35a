#include "core/learn/doubt_tiles.h"

#include <algorithm>
#include <cmath>

#include "core/pixel/row_parts.h"

namespace chalcedony {
namespace {

constexpr std::uint32_t kSmallestSide = 4;

std::uint32_t side_for(std::uint32_t width, std::uint32_t height) {
  const double pixels = static_cast<double>(width) * height;
  const auto side =
      static_cast<std::uint32_t>(std::ceil(std::sqrt(pixels / double{DoubtTiles::kMost})));
  return std::min({std::max(side, kSmallestSide), width, height});
}

std::uint64_t code_of(float value) {
  // What is not a number is 0.
  return value > 0 ? static_cast<std::uint64_t>(std::min(value, 255.0f) + 0.5f) : 0;
}

}  // namespace

double DoubtTile::variance() const {
  const double n = pixels;
  double of_mean = 0;
  for (const std::uint64_t sum : srgb)
    of_mean += static_cast<double>(sum) / n * static_cast<double>(sum) / n;
  return std::max(0.0, static_cast<double>(squares) / n - of_mean);
}

DoubtTiles::DoubtTiles(std::uint32_t width, std::uint32_t height)
    : side_(side_for(width, height)),
      columns_(width / side_),
      rows_(height / side_),
      tiles_(std::size_t{columns_} * rows_) {}

void DoubtTiles::add(const Block& block, const Verdicts& verdicts, const ConstPlanes& srgb) {
  for_each_row_part(block, [&](std::size_t i, std::size_t n, std::uint32_t x, std::uint32_t y) {
    const bool in_tiles = y / side_ < rows_, middle_row = y % side_ == side_ / 2;
    DoubtTile* const row = tiles_.data() + (in_tiles ? std::size_t{y / side_} * columns_ : 0);
    for (const std::size_t end = i + n; i < end; ++i, ++x) {
      if (!block.counts(i)) continue;
      const Label label = verdicts.labels[i];
      const bool doubtful = label == 0 || verdicts.far[i] != 0 || verdicts.confidence[i] < kSure;
      doubtful_ += doubtful;
      if (!in_tiles || x / side_ >= columns_) continue;
      DoubtTile& tile = row[x / side_];
      ++tile.pixels;
      tile.doubtful += doubtful;
      tile.lowest = std::min(tile.lowest, label);
      tile.highest = std::max(tile.highest, label);
      for (std::size_t c = 0; c < 3; ++c) {
        const std::uint64_t code = code_of(srgb[c][i]);
        tile.srgb[c] += code;
        tile.squares += code * code;
      }
      if (middle_row && x % side_ == side_ / 2) tile.middle = label;
    }
  });
}

void DoubtTiles::merge(const DoubtTiles& other) {
  doubtful_ += other.doubtful_;
  for (std::size_t t = 0; t < tiles_.size(); ++t) {
    DoubtTile& mine = tiles_[t];
    const DoubtTile& its = other.tiles_[t];
    mine.pixels += its.pixels;
    mine.doubtful += its.doubtful;
    for (std::size_t c = 0; c < 3; ++c) mine.srgb[c] += its.srgb[c];
    mine.squares += its.squares;
    mine.lowest = std::min(mine.lowest, its.lowest);
    mine.highest = std::max(mine.highest, its.highest);
    mine.middle = std::max(mine.middle, its.middle);
  }
}

}  // namespace chalcedony
