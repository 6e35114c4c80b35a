#include "job/region/shaded_regions.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstddef>
#include <string>
#include <utility>

#include "core/palette/figure_colors.h"
#include "job/picture/label_preview.h"
#include "job/region/measure_report.h"

namespace chalcedony {
namespace {

constexpr std::size_t kShades = 64, kMostCells = 11;

/// The regions but for specks: the smallest ones, which together have a hundredth of the area.
std::vector<std::size_t> without_specks(const MeasuredRegions& found) {
  constexpr std::uint64_t kOfAll = 100;
  std::vector<std::size_t> regions = largest_regions(found.regions, found.regions.size());
  for (std::uint64_t left = found.pixels_of_all() / kOfAll;
       found.regions[regions.back()].pixels <= left;) {
    left -= found.regions[regions.back()].pixels;
    regions.pop_back();
  }
  return regions;
}

/// What a class takes of the regions, in percent.
struct ShadedClass {
  const LegendEntry* kind;
  std::uint64_t pixels = 0;
  std::vector<double> shares;       // of each region
  std::size_t least = 0, most = 0;  // regions that are no specks

  double lowest() const { return shares[least]; }
  double highest() const { return shares[most]; }
};

ShadedClass class_in(const MeasuredRegions& found, const LegendEntry& kind,
                     const std::vector<std::size_t>& regions) {
  ShadedClass one{&kind, 0, {}, regions.front(), regions.front()};
  for (std::size_t r = 0; r < found.regions.size(); ++r) {
    const std::uint64_t pixels = found.map->labels.pixels(r, static_cast<Label>(kind.index));
    one.pixels += pixels;
    one.shares.push_back(percent(pixels, found.regions[r].pixels));
  }
  for (const std::size_t r : regions) {
    if (one.shares[r] < one.lowest()) one.least = r;
    if (one.shares[r] > one.highest()) one.most = r;
  }
  return one;
}

/// Those that regions hold, the largest first.
std::vector<ShadedClass> classes_of(const MeasuredRegions& found) {
  const std::vector<std::size_t> regions = without_specks(found);
  std::vector<ShadedClass> classes;
  for (const LegendEntry& kind : found.map->kinds) {
    ShadedClass one = class_in(found, kind, regions);
    if (one.pixels > 0) classes.push_back(std::move(one));
  }
  std::stable_sort(classes.begin(), classes.end(),
                   [](const ShadedClass& a, const ShadedClass& b) { return a.pixels > b.pixels; });
  if (classes.size() > kMostCells) classes.resize(kMostCells);
  return classes;
}

std::vector<LegendEntry> shades() {
  std::vector<LegendEntry> entries;
  for (const Color& color : heat_ramp(kShades))
    entries.push_back({static_cast<unsigned>(entries.size() + 1), "", css_hex(color)});
  return entries;
}

/// Writes the number of a shade at each pixel of a region.
void shade(const ShadedClass& one, const RegionMap& map, LabelGrid& grid) {
  const double lowest = one.lowest(), width = one.highest() - lowest;
  for (const RegionRun& run : map.runs) {
    const double heat =
        width > 0 ? std::clamp((one.shares[run.part] - lowest) / width, 0.0, 1.0) : 1;
    std::fill_n(grid.row(run.y) + run.begin, run.end - run.begin,
                static_cast<Label>(1 + std::lround(heat * (kShades - 1))));
  }
}

}  // namespace

std::vector<SheetCell> shaded_regions(const MeasuredRegions& found, const RegionMap& map,
                                      LabelPicture& picture) {
  picture.is_mask = false;
  picture.classes = shades();
  std::vector<SheetCell> cells;
  for (const ShadedClass& one : classes_of(found)) {
    shade(one, map, picture.grid);
    const RegionMeasures& region = found.regions[one.most];
    SheetCell& cell = cells.emplace_back();
    cell.name = one.kind->name;
    cell.behind = fmt::format(", {:.1f} to {:.1f} %", one.lowest(), one.highest());
    cell.picture = label_thumbnail(picture);
    cell.over.labels.push_back({region.center_x, region.center_y, std::to_string(one.most + 1)});
  }
  return cells;
}

}  // namespace chalcedony
