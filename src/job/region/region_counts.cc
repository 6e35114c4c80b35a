#include "job/region/region_counts.h"

#include <algorithm>
#include <filesystem>
#include <string>
#include <utility>
#include <vector>

#include "figure/class_bars_figure.h"
#include "figure/plot/axis.h"
#include "job/picture/short_names.h"

namespace chalcedony {
namespace {

constexpr const char* kNoColor = "#808080";  // of a run that did not tell colors yet

/// How many regions of a class a picture has; none of one that it does not name.
std::uint64_t count_in(const Json& picture, const Json& name) {
  for (const Json& one : picture["classes"])
    if (one["name"] == name) return one["count"].get<std::uint64_t>();
  return 0;
}

/// The classes of all pictures, in the order in which they come, with name and color.
std::vector<Json> classes_of(const Json& pictures) {
  std::vector<Json> classes;
  for (const Json& picture : pictures)
    for (const Json& one : picture["classes"])
      if (std::none_of(classes.begin(), classes.end(),
                       [&](const Json& known) { return known["name"] == one["name"]; }))
        classes.push_back({{"name", one["name"]}, {"color", one.value("color", kNoColor)}});
  return classes;
}

void add_counts(Json& one, const Json& pictures) {
  std::uint64_t all = 0;
  for (const Json& picture : pictures) {
    const std::uint64_t count = count_in(picture, one["name"]);
    all += count;
    if (!one.contains("fewest") || count < one["fewest"]) {
      one["fewest"] = count;
      one["fewest_file"] = picture["file"];
    }
    if (!one.contains("most") || count > one["most"]) {
      one["most"] = count;
      one["most_file"] = picture["file"];
    }
  }
  one["count"] = all;
}

ClassBars bars_of(const Json& pictures, const Json& together) {
  ClassBars bars;
  bars.title = "Regions in " + std::to_string(pictures.size()) + " pictures";
  bars.of = BarsOf::kRegions;
  for (const Json& one : together["classes"])
    bars.classes.push_back({.name = one["name"].get<std::string>(),
                            .color = one["color"].get<std::string>(),
                            .count = grouped(one["count"].get<double>())});
  std::vector<std::filesystem::path> files;
  for (const Json& picture : pictures) {
    files.push_back(picture["file"].get<std::string>());
    std::vector<double>& values = bars.values.emplace_back();
    for (const Json& one : together["classes"])
      values.push_back(static_cast<double>(count_in(picture, one["name"])));
  }
  bars.pictures = short_names(files);
  return bars;
}

}  // namespace

Json region_counts_of_all(const Json& pictures) {
  if (pictures.size() < 2) return nullptr;
  std::uint64_t count = 0;
  for (const Json& picture : pictures) count += picture["count"].get<std::uint64_t>();
  Json all{{"pictures", pictures.size()}, {"count", count}, {"classes", Json::array()}};
  for (Json& one : classes_of(pictures)) {
    add_counts(one, pictures);
    all["classes"].push_back(std::move(one));
  }
  return all;
}

void report_region_counts(Json& summary, Plot& plot, Results& results) {
  Json together = region_counts_of_all(summary["inputs"]);
  if (together.is_null()) return;
  if (plot.format() != FigureFormat::kNone && !together["classes"].empty())
    add_class_bars_figure(plot, results.path("counts.figure." + extension_of(plot.format())),
                          bars_of(summary["inputs"], together));
  summary["together"] = std::move(together);
}

}  // namespace chalcedony
