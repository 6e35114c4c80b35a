#include "job/region/region_shares.h"

#include <algorithm>
#include <map>

#include "figure/plot/axis.h"

namespace chalcedony {
namespace {

Label label_of(const LegendEntry& kind) { return static_cast<Label>(kind.index); }

/// What a region holds of one kind.
struct Held {
  const LegendEntry* kind;
  std::uint64_t pixels;
};

/// What a region holds, the largest first.
std::vector<Held> held_by(const MapInRegions& map, std::size_t region) {
  std::vector<Held> held;
  for (const LegendEntry& kind : map.kinds)
    if (const std::uint64_t pixels = map.labels.pixels(region, label_of(kind)))
      held.push_back({&kind, pixels});
  std::stable_sort(held.begin(), held.end(),
                   [](const Held& a, const Held& b) { return a.pixels > b.pixels; });
  return held;
}

double share_in(const MeasuredRegions& found, std::size_t region, const LegendEntry& kind) {
  return percent(found.map->labels.pixels(region, label_of(kind)), found.regions[region].pixels);
}

/// The pixels of all regions that are of a kind.
std::uint64_t pixels_of(const MeasuredRegions& found, std::size_t kind) {
  std::uint64_t pixels = 0;
  for (const std::vector<LabelShares>& of_class : found.shares) pixels += of_class[kind].pixels;
  return pixels;
}

}  // namespace

std::vector<std::vector<LabelShares>> shares_by_class(const MeasuredRegions& found) {
  std::map<Label, std::vector<std::size_t>> regions;  // in the order of the classes
  for (std::size_t r = 0; r < found.regions.size(); ++r)
    regions[found.regions[r].label].push_back(r);
  std::vector<std::vector<LabelShares>> shares;
  for (const auto& [label, of_class] : regions) {
    std::vector<LabelShares>& its = shares.emplace_back();
    for (const LegendEntry& kind : found.map->kinds)
      its.push_back(label_shares(found.map->labels, label_of(kind), of_class));
  }
  return shares;
}

void add_share_columns(const MapInRegions& map, std::vector<std::string>& columns) {
  if (!map.is_mask) columns.push_back("map_class");
  for (const LegendEntry& kind : map.kinds) columns.push_back("map_" + kind.name + "_percent");
}

void add_share_fields(const MeasuredRegions& found, std::size_t region,
                      std::vector<CsvField>& row) {
  const MapInRegions& map = *found.map;
  if (!map.is_mask) row.emplace_back(held_by(map, region).front().kind->name);
  for (const LegendEntry& kind : map.kinds) row.emplace_back(share_in(found, region, kind));
}

Json held_json(const MeasuredRegions& found, std::size_t region) {
  Json held = Json::array();
  for (const auto& [kind, pixels] : held_by(*found.map, region))
    held.push_back({{"name", kind->name},
                    {"pixels", pixels},
                    {"percent", percent(pixels, found.regions[region].pixels)}});
  return held;
}

Json class_held_json(const MeasuredRegions& found, std::size_t of_class) {
  const std::uint64_t all = found.sizes[of_class].pixels;
  Json held = Json::array();
  for (std::size_t k = 0; k < found.map->kinds.size(); ++k) {
    const LegendEntry& kind = found.map->kinds[k];
    const LabelShares& shares = found.shares[of_class][k];
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
  const std::uint64_t all = found.pixels_of_all();
  std::uint64_t unclassified = 0;
  Json classes = Json::array();
  for (std::size_t k = 0; k < map.kinds.size(); ++k) {
    const LegendEntry& kind = map.kinds[k];
    const std::uint64_t pixels = pixels_of(found, k);
    if (kind.index == 0) {
      unclassified = pixels;
      continue;
    }
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
    for (std::size_t k = 0; k < found.map->kinds.size(); ++k) {
      const LabelShares& shares = found.shares[c][k];
      table.add({found.names[sizes.label], sizes.regions, found.map->kinds[k].name, shares.pixels,
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
  std::vector<const LegendEntry*> kinds;
  for (std::size_t k = 0; k < map.kinds.size(); ++k)
    if (const std::uint64_t held = pixels_of(found, k)) {
      const LegendEntry& kind = map.kinds[k];
      kinds.push_back(&kind);
      bars.classes.push_back({kind.name, kind.color, percent(held, found.pixels_of_all())});
    }
  for (const std::size_t r : shown) {
    bars.pictures.push_back(std::to_string(r + 1) + " " + found.names[found.regions[r].label]);
    auto& own = bars.values.emplace_back();
    for (const LegendEntry* const kind : kinds) own.push_back(share_in(found, r, *kind));
  }
  return bars;
}

}  // namespace chalcedony
