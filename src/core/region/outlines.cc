#include "core/region/outlines.h"

#include <algorithm>

namespace chalcedony {
namespace {

constexpr std::uint32_t kNowhere = ~std::uint32_t{0};

/// Follows the edges between a region, on the right hand, and what is beside it.
class EdgeFollower {
 public:
  EdgeFollower(const RegionMap& map, std::uint32_t width, std::uint32_t height,
               Connectivity connectivity)
      : width_(width),
        height_(height),
        corners_join_(connectivity == Connectivity::kEight),
        region_(std::size_t{width} * height, kNowhere),
        seen_(region_.size()) {
    for (const RegionRun& run : map.runs)
      std::fill_n(
          region_.begin() + static_cast<std::ptrdiff_t>(std::size_t{run.y} * width + run.begin),
          run.end - run.begin, run.part);
  }

  /// Whether a ring not followed yet runs along the upper side of a pixel.
  bool starts_ring(std::uint32_t x, std::uint32_t y) const {
    const std::size_t at = std::size_t{y} * width_ + x;
    return !seen_[at] && (y == 0 || region_[at - width_] != region_[at]);
  }

  Ring follow(std::uint32_t x, std::uint32_t y) {
    const std::uint32_t own = region_[std::size_t{y} * width_ + x];
    Ring ring{{x, y}};
    std::int64_t px = x, py = y;
    int way = 0;  // 0 east, 1 south, 2 west, 3 north
    do {
      if (way == 0)
        seen_[static_cast<std::size_t>(py) * width_ + static_cast<std::size_t>(px)] = true;
      constexpr std::array<std::array<int, 2>, 4> kStep{{{1, 0}, {0, 1}, {-1, 0}, {0, -1}}};
      px += kStep[static_cast<std::size_t>(way)][0];
      py += kStep[static_cast<std::size_t>(way)][1];
      const int turned = next_way(px, py, way, own);
      if (turned != way)
        ring.push_back({static_cast<std::uint32_t>(px), static_cast<std::uint32_t>(py)});
      way = turned;
    } while (px != x || py != y || way != 0);
    // The last corner is the first one.
    return ring;
  }

 private:
  bool is(std::int64_t x, std::int64_t y, std::uint32_t own) const {
    return x >= 0 && y >= 0 && x < width_ && y < height_ &&
           region_[static_cast<std::size_t>(y) * width_ + static_cast<std::size_t>(x)] == own;
  }

  int next_way(std::int64_t x, std::int64_t y, int way, std::uint32_t own) const {
    // The two pixels ahead of the corner, seen along the way.
    constexpr std::array<std::array<int, 2>, 4> kRight{{{0, 0}, {-1, 0}, {-1, -1}, {0, -1}}};
    constexpr std::array<std::array<int, 2>, 4> kLeft{{{0, -1}, {0, 0}, {-1, 0}, {-1, -1}}};
    const auto w = static_cast<std::size_t>(way);
    const bool right = is(x + kRight[w][0], y + kRight[w][1], own),
               left = is(x + kLeft[w][0], y + kLeft[w][1], own);
    if (left && (right || corners_join_)) return (way + 3) % 4;
    return right ? way : (way + 1) % 4;
  }

  std::uint32_t width_, height_;
  bool corners_join_;
  std::vector<std::uint32_t> region_;
  std::vector<bool> seen_;
};

}  // namespace

std::vector<std::vector<Ring>> outlines_of(const RegionMap& map, std::uint32_t width,
                                           std::uint32_t height, Connectivity connectivity) {
  EdgeFollower edges(map, width, height, connectivity);
  std::vector<std::vector<Ring>> outlines(map.regions.size());
  for (const RegionRun& run : map.runs)
    for (std::uint32_t x = run.begin; x < run.end; ++x)
      if (edges.starts_ring(x, run.y)) outlines[run.part].push_back(edges.follow(x, run.y));
  return outlines;
}

}  // namespace chalcedony
