#include "job/region/region_parts.h"

#include <algorithm>
#include <cstdint>
#include <map>
#include <utility>

#include "core/palette/figure_colors.h"
#include "io/text/csv.h"

namespace chalcedony {

std::vector<ShownParts> parted_classes(const LabelPicture& picture) {
  std::map<Label, std::vector<RegionPart>> parts;
  for (const RegionPart& part : parts_of_regions(picture.grid)) parts[part.label].push_back(part);
  const double longest = std::max(picture.grid.width, picture.grid.height);
  std::vector<ShownParts> classes;
  for (auto& [label, of_class] : parts) {
    const auto entry =
        std::find_if(picture.classes.begin(), picture.classes.end(),
                     [&, number = label](const auto& one) { return one.index == number; });
    ShownParts shown{entry->name,
                     picture.is_mask ? kSelectedColor : entry->color,
                     part_counts(of_class, longest),
                     {}};
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
  PartCount all = {0, pictures.front()["to"].get<double>(), 0};
  bool parted = false;
  for (const Json& picture : pictures) {
    all.above = std::max(all.above, picture["above"].get<double>());
    all.to = std::min(all.to, picture["to"].get<double>());
    all.regions += picture["regions"].get<std::uint64_t>();
    parted = parted || !picture["part"].is_null();
  }
  Json json{{"regions", all.regions}, {"part", nullptr}};
  if (parted && all.above < all.to) json["part"] = middle_of(all);
  json["above"] = all.above;
  json["to"] = all.to;
  return json;
}

}  // namespace chalcedony
