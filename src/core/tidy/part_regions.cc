#include "core/tidy/part_regions.h"

#include <tbb/parallel_for.h>
#include <tbb/parallel_sort.h>
#include <tbb/task_arena.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <functional>
#include <limits>
#include <mutex>
#include <vector>

#include "core/region/region_map.h"
#include "core/tidy/squared_distances.h"

namespace chalcedony {
namespace {

/// The runs of each region, and the box around them.
struct Extent {
  std::vector<RegionRun> runs;
  std::uint32_t left = 0, top = 0, right = 0, bottom = 0;  // of what is looked at
};

/// With a pixel around each region that is not of it, but where the picture ends.
std::vector<Extent> extents_of(const RegionMap& map, const LabelGrid& grid) {
  std::vector<Extent> extents(map.regions.size());
  for (const RegionRun& run : map.runs) {
    Extent& extent = extents[run.part];
    const bool first = extent.runs.empty();
    extent.left = first ? run.begin : std::min(extent.left, run.begin);
    extent.right = std::max(extent.right, run.end);
    extent.top = first ? run.y : extent.top;
    extent.bottom = run.y + 1;
    extent.runs.push_back(run);
  }
  for (Extent& extent : extents) {
    extent.left -= extent.left > 0 ? 1 : 0;
    extent.top -= extent.top > 0 ? 1 : 0;
    extent.right = std::min(extent.right + 1, grid.width);
    extent.bottom = std::min(extent.bottom + 1, grid.height);
  }
  return extents;
}

/// Floods one region from its deepest pixels outward. Parts grow pixel by pixel; where two meet
/// that are deep enough, the pixel is cut.
class PartFlood {
 public:
  /// Parts that are less than `deeper` deeper than where they meet a deeper one join it.
  PartFlood(const Extent& extent, double deeper)
      : extent_(extent),
        width_(extent.right - extent.left),
        height_(extent.bottom - extent.top),
        deeper_(deeper),
        outside_(width_ * height_, 1),
        part_of_(outside_.size()) {
    for (const RegionRun& run : extent.runs)
      std::fill(outside_.begin() + place(run.begin, run.y),
                outside_.begin() + place(run.end, run.y), std::uint8_t{0});
    squares_ = squared_distances(outside_, width_);
    parts_.push_back({kNone, 0, 0});
  }

  /// The pixels that are cut, as places of the box; a shallow part that cuts enclose goes with
  /// them.
  std::vector<std::uint32_t> cuts() {
    for (const std::uint32_t pixel : deepest_first()) reach(pixel);
    std::vector<std::uint32_t> cut;
    for (std::uint32_t i = 0; i < part_of_.size(); ++i)
      if (part_of_[i] == kCut || (part_of_[i] != kNone && is_shallow(root(part_of_[i]))))
        cut.push_back(i);
    return cut;
  }

  /// All parts, when none are deep enough to be cut off.
  std::vector<RegionPart> parts(Label label) {
    for (const std::uint32_t pixel : deepest_first()) reach(pixel);
    std::vector<RegionPart> found;
    for (std::size_t i = 1; i < parts_.size(); ++i)
      found.push_back({label, parts_[i].depth, parts_[i].joined_at,
                       extent_.left + parts_[i].deepest % width_ + 0.5,
                       extent_.top + parts_[i].deepest / width_ + 0.5});
    return found;
  }

 private:
  static constexpr std::uint32_t kNone = 0, kCut = ~std::uint32_t{0};

  struct Part {
    std::uint32_t joined;   // the part it has become one with, itself as long as it has not
    std::uint32_t deepest;  // of its pixels, the first one
    double depth;           // of that
    double met = -1;        // how deep it lies where it first met a deeper one across a cut
    double joined_at = 0;   // how deep it lies where it joined another
  };

  std::ptrdiff_t place(std::uint32_t x, std::uint32_t y) const {
    return static_cast<std::ptrdiff_t>((y - extent_.top) * width_ + (x - extent_.left));
  }

  double depth_at(std::uint32_t pixel) const {
    return std::sqrt(static_cast<double>(squares_[pixel]));
  }

  std::vector<std::uint32_t> deepest_first() const {
    // Depth above, place below: from large to small these are deep ones first, later places first.
    std::vector<std::uint64_t> keys;
    for (std::uint32_t i = 0; i < outside_.size(); ++i)
      if (!outside_[i]) keys.push_back(std::uint64_t{squares_[i]} << 32 | (~i & 0xffffffffu));
    tbb::parallel_sort(keys.begin(), keys.end(), std::greater<>());
    std::vector<std::uint32_t> pixels;
    pixels.reserve(keys.size());
    for (const std::uint64_t key : keys) pixels.push_back(~static_cast<std::uint32_t>(key));
    return pixels;
  }

  std::uint32_t root(std::uint32_t part) {
    while (parts_[part].joined != part)
      part = parts_[part].joined = parts_[parts_[part].joined].joined;
    return part;
  }

  /// What has been reached around a pixel.
  struct Around {
    std::array<std::uint32_t, 8> parts;  // each once
    std::size_t count = 0;
    bool cut = false;
  };

  Around around(std::uint32_t pixel) {
    Around found;
    const std::size_t x = pixel % width_, y = pixel / width_;
    for (std::size_t ny = y - (y > 0 ? 1 : 0); ny <= y + 1 && ny < height_; ++ny)
      for (std::size_t nx = x - (x > 0 ? 1 : 0); nx <= x + 1 && nx < width_; ++nx) {
        const std::uint32_t there = part_of_[ny * width_ + nx];
        found.cut = found.cut || there == kCut;
        if (there == kNone || there == kCut) continue;
        const std::uint32_t part = root(there);
        const auto end = found.parts.begin() + static_cast<std::ptrdiff_t>(found.count);
        if (std::find(found.parts.begin(), end, part) == end) found.parts[found.count++] = part;
      }
    return found;
  }

  void reach(std::uint32_t pixel) {
    const Around near = around(pixel);
    const double depth = depth_at(pixel);
    if (near.count == 0) {
      part_of_[pixel] = new_part(pixel, depth);
      if (near.cut) meet(part_of_[pixel], depth);
      return;
    }
    std::uint32_t deepest = near.parts[0];
    for (std::size_t i = 1; i < near.count; ++i)
      if (is_deeper(near.parts[i], deepest)) deepest = near.parts[i];
    const auto is_other = [&](std::size_t i) { return near.parts[i] != deepest; };
    bool cuts = false;
    for (std::size_t i = 0; i < near.count; ++i)
      cuts = cuts || (is_other(i) && !is_shallow(near.parts[i], depth));
    // Across a cut lie parts that were there before, and are deeper.
    for (std::size_t i = 0; i < near.count; ++i)
      if (near.cut || (cuts && is_other(i))) meet(near.parts[i], depth);
    part_of_[pixel] = cuts ? kCut : deepest;
    if (cuts) return;  // it does not join what is beside it; another pixel may
    for (std::size_t i = 0; i < near.count; ++i)
      if (is_other(i)) join(near.parts[i], deepest, depth);
  }

  /// A part meets a deeper one across a cut, beside a pixel that lies so deep.
  void meet(std::uint32_t part, double depth) {
    parts_[part].met = std::max(parts_[part].met, depth);
  }

  void join(std::uint32_t part, std::uint32_t deepest, double at) {
    parts_[part].joined = deepest;
    parts_[part].joined_at = at;
    meet(deepest, parts_[part].met);
  }

  /// Whether a part is no one of its own beside deeper ones that it met, or meets so deep now.
  bool is_shallow(std::uint32_t part, double now = -1) const {
    const double met = std::max(parts_[part].met, now);
    return met >= 0 && parts_[part].depth - met < deeper_;
  }

  bool is_deeper(std::uint32_t a, std::uint32_t b) const {
    return parts_[a].depth > parts_[b].depth || (parts_[a].depth == parts_[b].depth && a < b);
  }

  std::uint32_t new_part(std::uint32_t pixel, double depth) {
    const auto part = static_cast<std::uint32_t>(parts_.size());
    parts_.push_back({part, pixel, depth});
    return part;
  }

  const Extent& extent_;
  std::size_t width_, height_;
  double deeper_;
  Flags outside_;
  std::vector<std::uint32_t> part_of_, squares_;
  std::vector<Part> parts_;
};

/// Does work(extent) on every region of a picture, side by side.
template <class Work>
void for_regions(const LabelGrid& grid, const Work& work) {
  const RegionMap map = find_regions(grid, Connectivity::kEight);
  const std::vector<Extent> extents = extents_of(map, grid);
  tbb::parallel_for(std::size_t{0}, extents.size(), [&](std::size_t region) {
    // A thread that waits for others within a region does not begin another one, which takes room.
    tbb::this_task_arena::isolate([&] { work(extents[region]); });
  });
}

}  // namespace

void part_regions(LabelGrid& grid, double deeper) {
  for_regions(grid, [&](const Extent& extent) {
    const std::uint32_t width = extent.right - extent.left;
    for (const std::uint32_t cut : PartFlood(extent, deeper).cuts())
      grid.row(extent.top + cut / width)[extent.left + cut % width] = 0;
  });
}

std::vector<RegionPart> parts_of_regions(const LabelGrid& grid) {
  std::mutex mutex;
  std::vector<RegionPart> parts;
  for_regions(grid, [&](const Extent& extent) {
    const RegionRun& first = extent.runs.front();
    const Label label = grid.row(first.y)[first.begin];
    const auto own = PartFlood(extent, std::numeric_limits<double>::infinity()).parts(label);
    const std::lock_guard lock(mutex);
    parts.insert(parts.end(), own.begin(), own.end());
  });
  // What fills the picture has nothing outside.
  const double longest = std::max(grid.width, grid.height);
  for (RegionPart& part : parts) part.radius = std::min(part.radius, longest);
  std::sort(parts.begin(), parts.end(), [](const RegionPart& a, const RegionPart& b) {
    return a.y != b.y ? a.y < b.y : a.x < b.x;
  });
  return parts;
}

}  // namespace chalcedony
