#include "job/region/measure_report.h"

#include <algorithm>
#include <numeric>

#include "core/palette/figure_colors.h"
#include "io/text/csv.h"
#include "job/region/channel_figures.h"
#include "job/region/region_parts.h"
#include "job/region/region_shares.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostInSummary = 100;  // the largest; the table has all
constexpr int kToldPercentiles[]{10, 50, 90};

std::vector<std::string> columns_of_regions(const MeasuredRegions& found) {
  std::vector<std::string> columns{"region",     "class",
                                   "pixels",     "share_percent",
                                   "unit",       "area",
                                   "center_x",   "center_y",
                                   "left",       "top",
                                   "width",      "height",
                                   "perimeter",  "equivalent_diameter",
                                   "roundness",  "major_axis",
                                   "minor_axis", "orientation",
                                   "holes",      "at_edge"};
  if (found.has_colors) {
    add_figure_columns(found.channels, columns);
    columns.push_back("mean_color");
  }
  if (found.map) add_share_columns(*found.map, columns);
  return columns;
}

std::vector<CsvField> row_of(const MeasuredRegions& found, std::size_t r) {
  const RegionMeasures& m = found.regions[r];
  const PixelSize& size = found.pixel_size;
  std::vector<CsvField> row{std::uint64_t{r + 1},
                            found.names[m.label],
                            m.pixels,
                            percent(m.pixels, found.picture_pixels),
                            size.unit,
                            size.area(m.pixels),
                            m.center_x,
                            m.center_y,
                            std::uint64_t{m.left},
                            std::uint64_t{m.top},
                            std::uint64_t{m.width},
                            std::uint64_t{m.height},
                            size.length(m.perimeter),
                            size.length(m.equivalent_diameter),
                            m.roundness,
                            size.length(m.major_axis),
                            size.length(m.minor_axis),
                            m.orientation,
                            m.holes,
                            m.at_edge ? "yes" : "no"};
  if (found.has_colors) {
    add_figure_fields(found.colors[r].channels, row);
    row.emplace_back(found.colors[r].mean_color);
  }
  if (found.map) add_share_fields(found, r, row);
  return row;
}

Json region_json(const MeasuredRegions& found, std::size_t r) {
  const RegionMeasures& m = found.regions[r];
  const PixelSize& size = found.pixel_size;
  Json json{{"region", r + 1},
            {"class", found.names[m.label]},
            {"pixels", m.pixels},
            {"percent", percent(m.pixels, found.picture_pixels)},
            {"area", size.area(m.pixels)},
            {"center", {m.center_x, m.center_y}},
            {"box", {m.left, m.top, m.width, m.height}},
            {"perimeter", size.length(m.perimeter)},
            {"equivalent_diameter", size.length(m.equivalent_diameter)},
            {"roundness", m.roundness},
            {"major_axis", size.length(m.major_axis)},
            {"minor_axis", size.length(m.minor_axis)},
            {"orientation", m.orientation},
            {"holes", m.holes},
            {"at_edge", m.at_edge}};
  if (found.has_colors) {
    json["mean_color"] = found.colors[r].mean_color;
    if (!found.channels.empty())
      json["channels"] = figures_json(found.channels, found.colors[r].channels);
  }
  if (found.map) json["map"] = held_json(found, r);
  return json;
}

/// The equivalent diameter that so many percent of the regions do not exceed.
double diameter_at(const MeasuredRegions& found, const ClassSizes& sizes, int percent) {
  return found.pixel_size.length(diameter_of_area(static_cast<double>(sizes.percentile(percent))));
}

Json class_json(const MeasuredRegions& found, std::size_t c) {
  const ClassSizes& sizes = found.sizes[c];
  const PixelSize& size = found.pixel_size;
  const std::string& name = found.names[sizes.label];
  Json json{{"name", name},
            {"color", color_on_paper(found.is_mask, found.class_colors[sizes.label])},
            {"count", sizes.regions},
            {"at_edge", sizes.at_edge},
            {"pixels", sizes.pixels},
            {"percent", percent(sizes.pixels, found.picture_pixels)},
            {"area", size.area(sizes.pixels)},
            {"mean", sizes.mean() * size.area(1)},
            {"median", size.area(sizes.percentile(50))},
            {"smallest", size.area(sizes.percentile(0))},
            {"largest", size.area(sizes.percentile(100))}};
  for (const int p : kToldPercentiles)
    json["diameter_" + std::to_string(p)] = diameter_at(found, sizes, p);
  for (const ShownParts& one : found.parted)
    if (one.name == name) json["parts"] = parts_json(one);
  if (found.map) json["map"] = class_held_json(found, c);
  return json;
}

}  // namespace

std::vector<std::size_t> largest_regions(const std::vector<RegionMeasures>& regions,
                                         std::size_t most) {
  std::vector<std::size_t> all(regions.size());
  std::iota(all.begin(), all.end(), std::size_t{0});
  most = std::min(all.size(), most);
  std::partial_sort(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(most), all.end(),
                    [&](std::size_t a, std::size_t b) {
                      return regions[a].pixels != regions[b].pixels
                                 ? regions[a].pixels > regions[b].pixels
                                 : a < b;
                    });
  all.resize(most);
  return all;
}

std::vector<ShownSizes> shown_sizes(const MeasuredRegions& found) {
  std::vector<ShownSizes> classes;
  for (const ClassSizes& sizes : found.sizes) {
    ShownSizes& shown = classes.emplace_back(
        ShownSizes{found.names[sizes.label],
                   color_on_paper(found.is_mask, found.class_colors[sizes.label]),
                   {}});
    for (const std::uint64_t pixels : sizes.sorted)
      shown.diameters.push_back(
          found.pixel_size.length(diameter_of_area(static_cast<double>(pixels))));
  }
  return classes;
}

void write_regions(const std::filesystem::path& path, const MeasuredRegions& found) {
  constexpr std::size_t kRowBytes = 160;
  CsvTable table(columns_of_regions(found), found.regions.size() * kRowBytes);
  for (std::size_t r = 0; r < found.regions.size(); ++r) table.add(row_of(found, r));
  table.write(path);
}

void write_sizes(const std::filesystem::path& path, const MeasuredRegions& found) {
  const PixelSize& size = found.pixel_size;
  CsvTable table({"class", "regions", "at_edge", "pixels", "share_percent", "unit", "area",
                  "mean_area", "median_area", "smallest_area", "largest_area", "diameter_10",
                  "diameter_50", "diameter_90"});
  for (const ClassSizes& sizes : found.sizes)
    table.add({found.names[sizes.label], sizes.regions, sizes.at_edge, sizes.pixels,
               percent(sizes.pixels, found.picture_pixels), size.unit, size.area(sizes.pixels),
               sizes.mean() * size.area(1), size.area(sizes.percentile(50)),
               size.area(sizes.percentile(0)), size.area(sizes.percentile(100)),
               diameter_at(found, sizes, 10), diameter_at(found, sizes, 50),
               diameter_at(found, sizes, 90)});
  table.write(path);
}

Json regions_json(const MeasuredRegions& found) {
  Json list = Json::array();
  for (std::size_t r = 0; r < found.regions.size(); ++r) list.push_back(region_json(found, r));
  return list;
}

Json measured_json(const std::filesystem::path& input, const MeasuredRegions& found) {
  Json json{{"file", input.string()},
            {"kind", found.is_mask ? "mask" : "class map"},
            {"unit", found.pixel_size.unit},
            {"count", found.regions.size()},
            {"classes", Json::array()}};
  if (!found.pixel_size_from.empty())
    json["pixel_size"] = {{"side", found.pixel_size.side},
                          {"from", found.pixel_size_from.string()}};
  for (std::size_t c = 0; c < found.sizes.size(); ++c)
    json["classes"].push_back(class_json(found, c));
  if (found.map) json["map"] = map_json(found);
  if (!found.parted.empty()) json["parting"] = parting_steps(json["classes"]);
  json["largest_regions"] = Json::array();
  for (const std::size_t r : largest_regions(found.regions, kMostInSummary))
    json["largest_regions"].push_back(region_json(found, r));
  return json;
}

}  // namespace chalcedony
