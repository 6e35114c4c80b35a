#include "job/map/picture_shares.h"

#include <filesystem>
#include <functional>
#include <utility>
#include <vector>

#include "core/palette/figure_colors.h"
#include "figure/class_bars_figure.h"
#include "job/map/class_shares.h"
#include "job/picture/short_names.h"

namespace chalcedony {
namespace {

using ShareOf = std::function<double(const Json& picture)>;

/// The pictures that have classes.
std::vector<const Json*> with_classes(const Json& pictures) {
  std::vector<const Json*> list;
  for (const Json& picture : pictures)
    if (!picture["classes"].empty()) list.push_back(&picture);
  return list;
}

bool same_classes(const Json& a, const Json& b) {
  if (a.size() != b.size()) return false;
  for (std::size_t c = 0; c < a.size(); ++c)
    if (a[c]["name"] != b[c]["name"]) return false;
  return true;
}

std::uint64_t sum_of(const std::vector<const Json*>& pictures, const char* field) {
  std::uint64_t sum = 0;
  for (const Json* const picture : pictures) sum += (*picture)[field].get<std::uint64_t>();
  return sum;
}

/// The lowest and the highest share in a picture.
void add_range(Json& json, const std::vector<const Json*>& pictures, const ShareOf& share_of) {
  std::vector<double> shares;
  std::vector<std::string> files;
  for (const Json* const picture : pictures) {
    shares.push_back(share_of(*picture));
    files.push_back((*picture)["file"].get<std::string>());
  }
  add_lowest_and_highest(json, shares, files);
}

/// A class over all pictures.
Json class_of_all(const std::vector<const Json*>& pictures, std::size_t c, std::uint64_t counted) {
  const Json& first = pictures.front()->at("classes")[c];
  Json one{{"index", first["index"]}, {"name", first["name"]}, {"color", first["color"]}};
  std::uint64_t pixels = 0;
  double area = 0;
  for (const Json* const picture : pictures) {
    const Json& its = (*picture)["classes"][c];
    pixels += its["pixels"].get<std::uint64_t>();
    area += its.value("area", 0.0);
  }
  one["pixels"] = pixels;
  one["percent"] = percent(pixels, counted);
  if (first.contains("area")) one["area"] = area;
  add_range(one, pictures,
            [c](const Json& picture) { return picture["classes"][c]["percent"].get<double>(); });
  return one;
}

std::vector<std::string> names_of(const std::vector<const Json*>& pictures) {
  std::vector<std::filesystem::path> files;
  for (const Json* const picture : pictures) files.push_back((*picture)["file"].get<std::string>());
  return short_names(files);
}

double share_of_unclassified(const Json& picture) {
  return percent(picture["unclassified"].get<std::uint64_t>(),
                 picture["counted"].get<std::uint64_t>());
}

std::string in_pictures(std::size_t count) { return " in " + std::to_string(count) + " pictures"; }

ClassBars class_figure(const std::string& what, const Json& pictures, const Json& together) {
  const std::vector<const Json*> mapped = with_classes(pictures);
  ClassBars figure{"Shares of " + what + in_pictures(mapped.size()), names_of(mapped), {}, {}};
  for (const Json& one : together["classes"])
    figure.classes.push_back({one["name"].get<std::string>(), one["color"].get<std::string>(),
                              one["percent"].get<double>()});
  const bool all_classified = together["unclassified"] == 0;
  add_unclassified(figure.classes, together["unclassified"].get<std::uint64_t>(),
                   together["counted"].get<std::uint64_t>());
  std::vector<double> far;
  bool some_far = false;
  for (const Json* const picture : mapped) {
    std::vector<double>& shares = figure.values.emplace_back();
    for (const Json& one : (*picture)["classes"]) shares.push_back(one["percent"].get<double>());
    if (!all_classified) shares.push_back(share_of_unclassified(*picture));
    far.push_back(picture->value("far_percent", 0.0));
    some_far = some_far || far.back() > 0;
  }
  if (some_far) figure.beside = {"far from all samples, %", std::move(far)};
  return figure;
}

ClassBars selected_figure(const Json& pictures, const Json& together) {
  std::vector<const Json*> list;
  for (const Json& picture : pictures) list.push_back(&picture);
  ClassBars figure{"What is selected" + in_pictures(list.size()),
                   names_of(list),
                   {{"selected", kSelectedColor, together["selected_percent"].get<double>()}},
                   {}};
  for (const Json* const picture : list)
    figure.values.push_back({(*picture)["selected_percent"].get<double>()});
  return figure;
}

}  // namespace

Json class_shares_of_all(const Json& pictures) {
  const std::vector<const Json*> mapped = with_classes(pictures);
  if (mapped.size() < 2) return nullptr;
  const Json& first = mapped.front()->at("classes");
  for (const Json* const picture : mapped)
    if (!same_classes((*picture)["classes"], first)) return nullptr;
  const std::uint64_t counted = sum_of(mapped, "counted"),
                      unclassified = sum_of(mapped, "unclassified");
  Json all{{"pictures", mapped.size()},
           {"counted", counted},
           {"unclassified", unclassified},
           {"unclassified_percent", percent(unclassified, counted)}};
  if (mapped.front()->contains("unit")) all["unit"] = mapped.front()->at("unit");
  all["classes"] = Json::array();
  for (std::size_t c = 0; c < first.size(); ++c)
    all["classes"].push_back(class_of_all(mapped, c, counted));
  return all;
}

Json selected_shares_of_all(const Json& pictures) {
  std::vector<const Json*> list;
  for (const Json& picture : pictures)
    if (picture.contains("selected")) list.push_back(&picture);
  if (list.size() < 2) return nullptr;
  const std::uint64_t counted = sum_of(list, "counted"), selected = sum_of(list, "selected");
  Json all{{"pictures", list.size()},
           {"counted", counted},
           {"selected", selected},
           {"selected_percent", percent(selected, counted)}};
  add_range(all, list,
            [](const Json& picture) { return picture["selected_percent"].get<double>(); });
  return all;
}

void report_class_shares(Json& summary, const Json& pictures, const SharesName& name, Plot& plot,
                         Results& results) {
  Json together = class_shares_of_all(pictures);
  if (together.is_null()) return;
  if (plot.format() != FigureFormat::kNone)
    add_class_bars_figure(plot, results.path(name.file + "." + extension_of(plot.format())),
                          class_figure(name.what, pictures, together));
  summary["together"] = std::move(together);
}

void report_selected_shares(Json& summary, Plot& plot, Results& results) {
  Json together = selected_shares_of_all(summary["inputs"]);
  if (together.is_null()) return;
  if (plot.format() != FigureFormat::kNone)
    add_class_bars_figure(plot, results.path("coverage.figure." + extension_of(plot.format())),
                          selected_figure(summary["inputs"], together));
  summary["together"] = std::move(together);
}

}  // namespace chalcedony
