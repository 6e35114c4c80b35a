#include "job/look/told_classes.h"

#include <algorithm>
#include <numeric>
#include <string>

#include "core/pixel/label.h"
#include "core/pixel/region.h"
#include "io/picture/label_file.h"

namespace chalcedony {
namespace {

/// Pixels of each label in the region and the mask, and the labels at points.
struct FoundLabels {
  std::vector<std::uint64_t> pixels = std::vector<std::uint64_t>(kLabels);
  std::vector<Label> at;
};

FoundLabels found_labels(LabelFile& file, const Counting& counting,
                         const std::vector<std::pair<std::int64_t, std::int64_t>>& at) {
  const std::uint32_t width = file.rows->shape().width, height = file.rows->shape().height;
  const PixelRect part = counting.region.value_or(PixelRect{0, 0, width, height});
  FoundLabels found;
  found.at.resize(at.size());
  LabelRows rows(file);
  for (std::uint32_t y = 0; y < height; ++y) {
    const Label* const row = rows.next();
    for (std::size_t p = 0; p < at.size(); ++p)
      if (at[p].second == y) found.at[p] = row[at[p].first];
    if (y < part.y || y >= part.y + part.height) continue;
    for (std::uint32_t x = part.x; x < part.x + part.width; ++x)
      if (!counting.within || counting.within->at(std::uint64_t{y} * width + x))
        ++found.pixels[row[x]];
  }
  return found;
}

}  // namespace

bool lists_classes(const CountedPicture& picture) { return !picture.file.facts.legend.empty(); }

void tell_classes(const CountedPicture& picture,
                  const std::vector<std::pair<std::int64_t, std::int64_t>>& at,
                  std::uint64_t max_pixels, Json& json) {
  LabelFile file = open_labels(picture.file.path, max_pixels);
  const FoundLabels found = found_labels(file, picture.counting, at);
  const std::uint64_t all =
      std::accumulate(found.pixels.begin(), found.pixels.end(), std::uint64_t{0});
  json["unclassified"] = found.pixels[0];
  json["unclassified_percent"] = percent(found.pixels[0], all);
  json["classes"] = Json::array();
  for (const LegendEntry& entry : file.classes) {
    const std::uint64_t pixels = found.pixels[entry.index];
    json["classes"].push_back({{"index", entry.index},
                               {"name", entry.name},
                               {"color", entry.color},
                               {"pixels", pixels},
                               {"percent", percent(pixels, all)}});
  }
  for (std::size_t p = 0; p < at.size(); ++p) {
    const auto entry = std::find_if(file.classes.begin(), file.classes.end(),
                                    [&](const LegendEntry& e) { return e.index == found.at[p]; });
    json["at"][p]["class"] = entry != file.classes.end() ? entry->name : "";
  }
}

}  // namespace chalcedony
