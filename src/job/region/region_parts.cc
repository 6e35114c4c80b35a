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

/// The H in the middle of a range, where it holds one.
std::optional<double> part_in(const PartCount& range) {
  if (range.above >= range.to) return std::nullopt;
  return middle_of(range);
}

Json told(std::uint64_t regions, const std::optional<double>& part, const PartCount& range) {
  Json json{{"regions", regions}, {"part", nullptr}, {"above", range.above}, {"to", range.to}};
  if (part) json["part"] = *part;
  return json;
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
        entry->name, color_on_paper(picture.is_mask, entry->color), part_counts(of_class), {}};
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
  return told(chosen.regions, parts.counts.chosen > 0 ? part_in(chosen) : std::nullopt, chosen);
}

Json parts_of_all(const std::vector<Json>& pictures) {
  std::uint64_t regions = 0;
  for (const Json& picture : pictures) regions += picture["regions"].get<std::uint64_t>();
  const bool parted = std::any_of(pictures.begin(), pictures.end(), is_parted);
  const PartCount range = common_range(pictures);
  return told(regions, parted ? part_in(range) : std::nullopt, range);
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
  if (const auto part = part_in(common_range(all))) return step_text(*part);
  if (const auto part = part_in(common_range(parted))) return step_text(*part) + " of " + names;
  return each;
}

}  // namespace chalcedony
