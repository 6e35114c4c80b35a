#include "job/region/region_counts.h"

#include <algorithm>
#include <cstdint>
#include <filesystem>
#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "figure/class_bars_figure.h"
#include "figure/plot/axis.h"
#include "figure/size_ranges_figure.h"
#include "job/picture/short_names.h"
#include "job/region/region_parts.h"

namespace chalcedony {
namespace {

constexpr const char* kNoColor = "#808080";  // of a run that did not tell colors yet

/// How many regions each class has in each picture, and what the classes are called.
struct CountedClasses {
  std::vector<std::string> names, colors;           // in the order in which they come
  std::vector<std::vector<std::uint64_t>> regions;  // of each picture those of each class
};

CountedClasses counted_classes(const Json& pictures) {
  CountedClasses counted;
  std::map<std::string, std::size_t> places;
  for (const Json& picture : pictures) {
    std::vector<std::uint64_t>& regions = counted.regions.emplace_back(counted.names.size());
    for (const Json& one : picture["classes"]) {
      const auto [at, is_new] =
          places.emplace(one["name"].get<std::string>(), counted.names.size());
      if (is_new) {
        counted.names.push_back(at->first);
        counted.colors.push_back(one.value("color", kNoColor));
        regions.push_back(0);
      }
      regions[at->second] = one["count"].get<std::uint64_t>();
    }
  }
  for (auto& regions : counted.regions) regions.resize(counted.names.size());
  return counted;
}

/// A class over all pictures.
Json class_of_all(const Json& pictures, const CountedClasses& counted, std::size_t c) {
  std::uint64_t all = 0;
  std::size_t fewest = 0, most = 0;  // pictures
  for (std::size_t p = 0; p < counted.regions.size(); ++p) {
    const std::uint64_t count = counted.regions[p][c];
    all += count;
    if (count < counted.regions[fewest][c]) fewest = p;
    if (count > counted.regions[most][c]) most = p;
  }
  Json json{{"name", counted.names[c]},
            {"color", counted.colors[c]},
            {"count", all},
            {"fewest", counted.regions[fewest][c]},
            {"fewest_file", pictures[fewest]["file"]},
            {"most", counted.regions[most][c]},
            {"most_file", pictures[most]["file"]}};
  std::vector<Json> parts;
  for (const Json& picture : pictures)
    for (const Json& one : picture["classes"])
      if (one["name"] == counted.names[c] && one.contains("parts")) parts.push_back(one["parts"]);
  if (!parts.empty()) json["parts"] = parts_of_all(parts);
  return json;
}

Json counts_of_all(const Json& pictures, const CountedClasses& counted) {
  std::uint64_t count = 0;
  for (const Json& picture : pictures) count += picture["count"].get<std::uint64_t>();
  Json all{{"pictures", pictures.size()}, {"count", count}, {"classes", Json::array()}};
  for (std::size_t c = 0; c < counted.names.size(); ++c)
    all["classes"].push_back(class_of_all(pictures, counted, c));
  if (pictures[0].contains("parting")) all["parting"] = parting_steps(all["classes"]);
  return all;
}

ClassBars bars_of(const Json& pictures, const CountedClasses& counted, const Json& together) {
  ClassBars bars;
  bars.title = "Regions in " + std::to_string(pictures.size()) + " pictures";
  bars.of = BarsOf::kRegions;
  for (const Json& one : together["classes"])
    bars.classes.push_back({.name = one["name"].get<std::string>(),
                            .color = one["color"].get<std::string>(),
                            .count = grouped(one["count"].get<double>())});
  std::vector<std::filesystem::path> files;
  for (const Json& picture : pictures) files.push_back(picture["file"].get<std::string>());
  bars.pictures = short_names(files);
  for (const std::vector<std::uint64_t>& regions : counted.regions)
    bars.values.emplace_back(regions.begin(), regions.end());
  return bars;
}

/// Nothing when lengths of the pictures have several units, or no picture has regions.
std::optional<SizeRanges> size_ranges_of(const Json& pictures, const CountedClasses& counted,
                                         const std::vector<std::string>& names) {
  SizeRanges ranges{names, {}, {}, pictures[0]["unit"].get<std::string>()};
  for (std::size_t c = 0; c < counted.names.size(); ++c)
    ranges.classes.push_back({.name = counted.names[c], .color = counted.colors[c]});
  for (const Json& picture : pictures) {
    if (picture["unit"] != ranges.unit) return std::nullopt;
    auto& own = ranges.of.emplace_back(counted.names.size());
    for (const Json& one : picture["classes"]) {
      if (!one.contains("diameter_50")) return std::nullopt;  // of a run that did not tell it yet
      const auto at = std::find(counted.names.begin(), counted.names.end(), one["name"]);
      own[static_cast<std::size_t>(at - counted.names.begin())] = {
          one["diameter_10"].get<double>(), one["diameter_50"].get<double>(),
          one["diameter_90"].get<double>()};
    }
  }
  return ranges;
}

}  // namespace

void report_region_counts(Json& summary, Plot& plot, Results& results) {
  const Json& pictures = summary["inputs"];
  if (pictures.size() < 2) return;
  const CountedClasses counted = counted_classes(pictures);
  Json together = counts_of_all(pictures, counted);
  if (plot.format() != FigureFormat::kNone && !counted.names.empty()) {
    const std::string extension = extension_of(plot.format());
    const ClassBars bars = bars_of(pictures, counted, together);
    add_class_bars_figure(plot, results.path("counts.figure." + extension), bars);
    if (const auto ranges = size_ranges_of(pictures, counted, bars.pictures))
      add_size_ranges_figure(plot, results.path("sizes.figure." + extension), *ranges);
  }
  summary["together"] = std::move(together);
}

}  // namespace chalcedony
