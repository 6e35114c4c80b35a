#include "job/region/region_shares.h"

#include <algorithm>
#include <map>

#include "figure/plot/axis.h"

namespace chalcedony {
namespace {

Label label_of(const LegendEntry& kind) { return static_cast<Label>(kind.index); }

double share_in(const MapInRegions& map, std::size_t region, const LegendEntry& kind) {
  return percent(map.labels.pixels(region, label_of(kind)), map.labels.pixels(region));
}

/// What a region holds, the largest first.
std::vector<const LegendEntry*> held_by(const MapInRegions& map, std::size_t region) {
  std::vector<const LegendEntry*> held;
  for (const LegendEntry& kind : map.kinds)
    if (map.labels.pixels(region, label_of(kind)) > 0) held.push_back(&kind);
  std::stable_sort(held.begin(), held.end(), [&](const LegendEntry* a, const LegendEntry* b) {
    return map.labels.pixels(region, label_of(*a)) > map.labels.pixels(region, label_of(*b));
  });
  return held;
}

std::uint64_t pixels_of_all(const MeasuredRegions& found) {
  std::uint64_t pixels = 0;
  for (const ClassSizes& sizes : found.sizes) pixels += sizes.pixels;
  return pixels;
}

/// The pixels of all regions that are of this kind.
std::uint64_t pixels_of(const MapInRegions& map, const LegendEntry& kind) {
  std::uint64_t pixels = 0;
  for (std::size_t r = 0; r < map.labels.regions(); ++r)
    pixels += map.labels.pixels(r, label_of(kind));
  return pixels;
}

}  // namespace

std::vector<std::vector<std::size_t>> regions_by_class(const std::vector<RegionMeasures>& regions,
                                                       const std::vector<ClassSizes>& classes) {
  std::map<Label, std::size_t> places;
  for (std::size_t c = 0; c < classes.size(); ++c) places.emplace(classes[c].label, c);
  std::vector<std::vector<std::size_t>> of(classes.size());
  for (std::size_t r = 0; r < regions.size(); ++r) of[places.at(regions[r].label)].push_back(r);
  return of;
}

void add_share_columns(const MapInRegions& map, std::vector<std::string>& columns) {
  if (!map.is_mask) columns.push_back("map_class");
  for (const LegendEntry& kind : map.kinds) columns.push_back("map_" + kind.name + "_percent");
}

void add_share_fields(const MapInRegions& map, std::size_t region, std::vector<CsvField>& row) {
  if (!map.is_mask) row.emplace_back(held_by(map, region).front()->name);
  for (const LegendEntry& kind : map.kinds) row.emplace_back(share_in(map, region, kind));
}

Json held_json(const MapInRegions& map, std::size_t region) {
  Json held = Json::array();
  for (const LegendEntry* const kind : held_by(map, region))
    held.push_back({{"name", kind->name},
                    {"pixels", map.labels.pixels(region, label_of(*kind))},
                    {"percent", share_in(map, region, *kind)}});
  return held;
}

Json class_held_json(const MeasuredRegions& found, std::size_t of_class) {
  const std::vector<std::size_t>& regions = found.regions_of_class[of_class];
  const std::uint64_t all = found.sizes[of_class].pixels;
  Json held = Json::array();
  for (const LegendEntry& kind : found.map->kinds) {
    const LabelShares shares = label_shares(found.map->labels, label_of(kind), regions);
    if (shares.pixels == 0) continue;
    held.push_back({{"name", kind.name},
                    {"color", kind.color},
                    {"pixels", shares.pixels},
                    {"percent", percent(shares.pixels, all)},
                    {"area", found.pixel_size.area(shares.pixels)},
                    {"regions", shares.held_by},
                    {"lowest_percent", shares.lowest},
                    {"median_percent", shares.median},
                    {"highest_percent", shares.highest},
                    {"highest_region", shares.highest_region + 1}});
  }
  return held;
}

Json map_json(const MeasuredRegions& found) {
  const MapInRegions& map = *found.map;
  const std::uint64_t all = pixels_of_all(found);
  const std::uint64_t unclassified = map.is_mask ? 0 : pixels_of(map, map.kinds.back());
  Json classes = Json::array();
  for (const LegendEntry& kind : map.kinds) {
    if (kind.index == 0) continue;
    const std::uint64_t pixels = pixels_of(map, kind);
    classes.push_back({{"index", kind.index},
                       {"name", kind.name},
                       {"color", kind.color},
                       {"pixels", pixels},
                       {"percent", percent(pixels, all)},
                       {"area", found.pixel_size.area(pixels)}});
  }
  return {{"file", map.file.string()},     {"counted", all},
          {"unclassified", unclassified},  {"unclassified_percent", percent(unclassified, all)},
          {"unit", found.pixel_size.unit}, {"classes", classes}};
}

void write_shares(const std::filesystem::path& path, const MeasuredRegions& found) {
  CsvTable table({"class", "regions", "map_class", "pixels", "percent", "unit", "area", "held_by",
                  "lowest_percent", "median_percent", "highest_percent", "highest_region"});
  for (std::size_t c = 0; c < found.sizes.size(); ++c) {
    const ClassSizes& sizes = found.sizes[c];
    for (const LegendEntry& kind : found.map->kinds) {
      const LabelShares shares =
          label_shares(found.map->labels, label_of(kind), found.regions_of_class[c]);
      table.add({found.names[sizes.label], sizes.regions, kind.name, shares.pixels,
                 percent(shares.pixels, sizes.pixels), found.pixel_size.unit,
                 found.pixel_size.area(shares.pixels), std::uint64_t{shares.held_by}, shares.lowest,
                 shares.median, shares.highest, std::uint64_t{shares.highest_region + 1}});
    }
  }
  table.write(path);
}

ClassBars share_bars(const MeasuredRegions& found, const std::vector<std::size_t>& shown,
                     const std::string& input) {
  const MapInRegions& map = *found.map;
  const std::string all = grouped(static_cast<double>(found.regions.size()));
  ClassBars bars;
  bars.title = "What " + map.file.filename().string() + " has in the regions of " + input;
  bars.axis = "percent of the pixels of each region";
  bars.subtitle = (shown.size() == found.regions.size()
                       ? "all " + all
                       : "the " + std::to_string(shown.size()) + " largest of " + all) +
                  " regions; shares below are those of all regions together";
  const std::uint64_t pixels = pixels_of_all(found);
  std::vector<const LegendEntry*> kinds;
  for (const LegendEntry& kind : map.kinds)
    if (const std::uint64_t held = pixels_of(map, kind)) {
      kinds.push_back(&kind);
      bars.classes.push_back({kind.name, kind.color, percent(held, pixels)});
    }
  for (const std::size_t r : shown) {
    bars.pictures.push_back(std::to_string(r + 1) + " " + found.names[found.regions[r].label]);
    auto& own = bars.values.emplace_back();
    for (const LegendEntry* const kind : kinds) own.push_back(share_in(map, r, *kind));
  }
  return bars;
}

}  // namespace chalcedony
