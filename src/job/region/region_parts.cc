#include "job/region/region_parts.h"

#include <algorithm>
#include <cstdint>
#include <map>
#include <optional>
#include <utility>

#include "core/palette/figure_colors.h"
#include "io/text/csv.h"
#include "io/text/number_text.h"

namespace chalcedony {
namespace {

bool is_parted(const Json& parts) { return !parts["part"].is_null(); }

/// What lies in the ranges of all.
PartCount common_range(const std::vector<Json>& all) {
  PartCount range{all.front()["above"].get<double>(), all.front()["to"].get<double>(), 0};
  for (const Json& parts : all) {
    range.above = std::max(range.above, parts["above"].get<double>());
    range.to = std::min(range.to, parts["to"].get<double>());
  }
  return range;
}

/// The H that does for all, where there is one.
std::optional<double> common_part(const std::vector<Json>& all) {
  const PartCount range = common_range(all);
  if (range.above >= range.to) return std::nullopt;
  return middle_of(range);
}

std::string step_text(double part) { return "part " + number_text(part); }

}  // namespace

std::vector<ShownParts> parted_classes(const LabelPicture& picture) {
  std::map<Label, std::vector<RegionPart>> parts;
  for (const RegionPart& part : parts_of_regions(picture.grid)) parts[part.label].push_back(part);
  std::vector<ShownParts> classes;
  for (auto& [label, of_class] : parts) {
    const auto entry =
        std::find_if(picture.classes.begin(), picture.classes.end(),
                     [&, number = label](const auto& one) { return one.index == number; });
    ShownParts shown{
        entry->name, picture.is_mask ? kSelectedColor : entry->color, part_counts(of_class), {}};
    for (const RegionPart& part : of_class)
      if (part.neck == 0 || part.deeper() >= shown.counts.choice().to) shown.parts.push_back(part);
    classes.push_back(std::move(shown));
  }
  return classes;
}

void write_part_counts(const std::filesystem::path& path, const std::vector<ShownParts>& classes) {
  CsvTable table({"class", "above", "to", "regions", "chosen"});
  for (const ShownParts& one : classes)
    for (const PartCount& count : one.counts.all)
      table.add({one.name, count.above, count.to, count.regions,
                 &count == &one.counts.choice() ? "yes" : "no"});
  table.write(path);
}

Json parts_json(const ShownParts& parts) {
  const PartCount& chosen = parts.counts.choice();
  Json json{{"regions", chosen.regions}, {"part", nullptr}};
  if (parts.counts.chosen > 0) json["part"] = middle_of(chosen);
  json["above"] = chosen.above;
  json["to"] = chosen.to;
  return json;
}

Json parts_of_all(const std::vector<Json>& pictures) {
  const std::optional<double> part = common_part(pictures);
  std::uint64_t regions = 0;
  for (const Json& picture : pictures) regions += picture["regions"].get<std::uint64_t>();
  const bool parted = std::any_of(pictures.begin(), pictures.end(), is_parted);
  const PartCount range = common_range(pictures);
  Json json{{"regions", regions}, {"part", nullptr}};
  if (parted && part) json["part"] = *part;
  json["above"] = range.above;
  json["to"] = range.to;
  return json;
}

std::string parting_steps(const Json& classes) {
  std::vector<Json> all, parted;
  std::string names, each;
  for (const Json& one : classes) {
    if (!one.contains("parts")) continue;
    const Json& parts = one["parts"];
    all.push_back(parts);
    if (!is_parted(parts)) continue;
    parted.push_back(parts);
    const std::string name = one["name"].get<std::string>();
    names += (names.empty() ? "" : ",") + name;
    each += (each.empty() ? "" : "; ") + step_text(parts["part"].get<double>()) + " of " + name;
  }
  if (parted.empty()) return "";
  if (const auto part = common_part(all)) return step_text(*part);
  if (const auto part = common_part(parted)) return step_text(*part) + " of " + names;
  return each;
}

}  // namespace chalcedony
