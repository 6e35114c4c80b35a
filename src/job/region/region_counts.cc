#include "job/region/region_counts.h"

#include <cstdint>
#include <filesystem>
#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "figure/class_bars_figure.h"
#include "figure/plot/axis.h"
#include "figure/ranges_figure.h"
#include "job/map/picture_shares.h"
#include "job/picture/short_names.h"
#include "job/region/region_parts.h"

namespace chalcedony {
namespace {

constexpr const char* kNoColor = "#808080";  // of a run that did not tell colors yet

/// What is told of each class in each picture, and what the classes are called.
struct ToldClasses {
  std::vector<std::string> names, colors;    // in the order in which they come
  std::vector<std::vector<const Json*>> of;  // of each picture each class; null where it has none

  std::uint64_t regions(std::size_t picture, std::size_t c) const {
    return of[picture][c] ? (*of[picture][c])["count"].get<std::uint64_t>() : 0;
  }
};

ToldClasses told_classes(const Json& pictures) {
  ToldClasses told;
  std::map<std::string, std::size_t> places;
  for (const Json& picture : pictures) {
    std::vector<const Json*>& own = told.of.emplace_back(told.names.size());
    for (const Json& one : picture["classes"]) {
      const auto [at, is_new] = places.emplace(one["name"].get<std::string>(), told.names.size());
      if (is_new) {
        told.names.push_back(at->first);
        told.colors.push_back(one.value("color", kNoColor));
        own.push_back(nullptr);
      }
      own[at->second] = &one;
    }
  }
  for (auto& own : told.of) own.resize(told.names.size());
  return told;
}

/// A class over all pictures.
Json class_of_all(const Json& pictures, const ToldClasses& told, std::size_t c) {
  std::uint64_t all = 0;
  std::size_t fewest = 0, most = 0;  // pictures
  std::vector<Json> parts;
  for (std::size_t p = 0; p < told.of.size(); ++p) {
    const std::uint64_t count = told.regions(p, c);
    all += count;
    if (count < told.regions(fewest, c)) fewest = p;
    if (count > told.regions(most, c)) most = p;
    if (told.of[p][c] && told.of[p][c]->contains("parts"))
      parts.push_back((*told.of[p][c])["parts"]);
  }
  Json json{{"name", told.names[c]},
            {"color", told.colors[c]},
            {"count", all},
            {"fewest", told.regions(fewest, c)},
            {"fewest_file", pictures[fewest]["file"]},
            {"most", told.regions(most, c)},
            {"most_file", pictures[most]["file"]}};
  if (!parts.empty()) json["parts"] = parts_of_all(parts);
  return json;
}

Json counts_of_all(const Json& pictures, const ToldClasses& told) {
  std::uint64_t count = 0;
  for (const Json& picture : pictures) count += picture["count"].get<std::uint64_t>();
  Json all{{"pictures", pictures.size()}, {"count", count}, {"classes", Json::array()}};
  for (std::size_t c = 0; c < told.names.size(); ++c)
    all["classes"].push_back(class_of_all(pictures, told, c));
  if (pictures[0].contains("parting")) all["parting"] = parting_steps(all["classes"]);
  return all;
}

ClassBars bars_of(const Json& pictures, const ToldClasses& told, const Json& together) {
  ClassBars bars;
  bars.title = "Regions in " + std::to_string(pictures.size()) + " pictures";
  bars.of = BarsOf::kRegions;
  bars.axis = "regions";
  bars.subtitle = "numbers below are those of all pictures together";
  for (const Json& one : together["classes"])
    bars.classes.push_back({.name = one["name"].get<std::string>(),
                            .color = one["color"].get<std::string>(),
                            .count = grouped(one["count"].get<double>())});
  std::vector<std::filesystem::path> files;
  for (const Json& picture : pictures) files.push_back(picture["file"].get<std::string>());
  bars.pictures = short_names(files);
  for (std::size_t p = 0; p < told.of.size(); ++p) {
    auto& own = bars.values.emplace_back();
    for (std::size_t c = 0; c < told.names.size(); ++c)
      own.push_back(static_cast<double>(told.regions(p, c)));
  }
  return bars;
}

/// Nothing when lengths of the pictures have several units.
std::optional<PictureRanges> size_ranges_of(const Json& pictures, const ToldClasses& told,
                                            const std::vector<std::string>& names) {
  const auto unit = pictures[0]["unit"].get<std::string>();
  PictureRanges ranges;
  ranges.title = "Sizes of the regions in " + std::to_string(pictures.size()) + " pictures";
  ranges.subtitle =
      "bars: diameters from that of 10 to that of 90 % of the regions; dots: the median";
  ranges.axis = "diameter in " + unit + " (logarithmic)";
  ranges.logarithmic = true;
  ranges.pictures = names;
  for (std::size_t c = 0; c < told.names.size(); ++c)
    ranges.kinds.push_back({.name = told.names[c], .color = told.colors[c]});
  for (std::size_t p = 0; p < told.of.size(); ++p) {
    if (pictures[p]["unit"] != unit) return std::nullopt;
    auto& own = ranges.of.emplace_back();
    for (const Json* const one : told.of[p]) {
      own.emplace_back();
      if (!one) continue;
      if (!one->contains("diameter_50")) return std::nullopt;  // of a run that did not tell it yet
      own.back() = {(*one)["diameter_10"].get<double>(), (*one)["diameter_50"].get<double>(),
                    (*one)["diameter_90"].get<double>()};
    }
  }
  return ranges;
}

/// What the maps of pictures take of their regions, where all have one with the same classes.
void add_map_shares(const Json& pictures, Json& together, Plot& plot, Results& results) {
  Json maps = Json::array();
  for (const Json& picture : pictures) {
    if (!picture.contains("map")) return;
    maps.push_back(picture["map"]);
    maps.back()["file"] = picture["file"];
  }
  Json told;
  report_class_shares(told, maps, {"classes in regions", "shares.figure"}, plot, results);
  if (told.contains("together")) together["map"] = std::move(told["together"]);
}

}  // namespace

void report_region_counts(Json& summary, Plot& plot, Results& results) {
  const Json& pictures = summary["inputs"];
  if (pictures.size() < 2) return;
  const ToldClasses told = told_classes(pictures);
  Json together = counts_of_all(pictures, told);
  add_map_shares(pictures, together, plot, results);
  if (plot.format() != FigureFormat::kNone && !told.names.empty()) {
    const std::string extension = extension_of(plot.format());
    const ClassBars bars = bars_of(pictures, told, together);
    add_class_bars_figure(plot, results.path("counts.figure." + extension), bars);
    if (const auto ranges = size_ranges_of(pictures, told, bars.pictures))
      add_ranges_figure(plot, results.path("sizes.figure." + extension), *ranges);
  }
  summary["together"] = std::move(together);
}

}  // namespace chalcedony
