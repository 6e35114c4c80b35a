#include "job/region/map_in_regions.h"

#include <algorithm>
#include <map>
#include <set>
#include <string>
#include <utility>

#include "core/palette/figure_colors.h"
#include "core/pixel/label_runs.h"
#include "io/picture/label_picture.h"
#include "job/map/class_shares.h"
#include "job/picture/label_input.h"
#include "job/picture/same_size.h"

namespace chalcedony {
namespace {

/// The classes by their names, of which several numbers may share one.
std::vector<LegendEntry> kinds_of(const FoundClasses& told) {
  std::vector<LegendEntry> kinds;
  std::set<std::string> names;
  for (const LegendEntry& entry : told.classes)
    if (names.insert(entry.name).second)
      kinds.push_back({entry.index, entry.name, color_on_paper(told.is_mask, entry.color)});
  if (!told.is_mask) kinds.push_back({0, "unclassified", kUnclassifiedColor});
  return kinds;
}

/// The counts with the first number of each name in place of others that share it.
RegionLabels by_first_number(RegionLabels counted, const FoundClasses& told) {
  std::map<std::string, Label> first;
  std::map<Label, Label> instead;
  for (const LegendEntry& entry : told.classes) {
    const auto label = static_cast<Label>(entry.index);
    const auto [at, is_new] = first.emplace(entry.name, label);
    if (!is_new) instead.emplace(label, at->second);
  }
  if (instead.empty()) return counted;
  RegionLabels merged(counted.regions());
  for (std::size_t r = 0; r < counted.regions(); ++r)
    for (const LabelPixels& one : counted.of(r)) {
      const auto other = instead.find(one.label);
      merged.add(r, other == instead.end() ? one.label : other->second, one.pixels);
    }
  return merged;
}

}  // namespace

MapInRegions map_in_regions(const std::filesystem::path& file, LabelFile& labels,
                            Connectivity connectivity,
                            const std::vector<std::uint32_t>& region_of_part, std::size_t regions,
                            const SharedOptions& options, const Context& context) {
  LabelFile map = open_label_input(file, options, context);
  const RasterShape shape = labels.rows->shape();
  require_same_size(file, map.rows->shape(), "the regions are of", shape,
                    "give the map of the picture that the regions belong to");
  RegionLabels counted(regions);
  std::vector<bool> seen(kLabels);
  RunLinker linker(shape.width, connectivity);
  LabelRuns runs(shape.width);
  labels.rows->rewind();
  LabelRows rows(labels), map_rows(map);
  for (std::uint32_t y = 0; y < shape.height; ++y) {
    const Label* const row = map_rows.next();
    runs.set(row);
    for (std::size_t x = 0; x < shape.width; x = runs.end_of(x)) seen[row[x]] = true;
    for (const RegionRun& run : linker.add_row(rows.next()))
      for (std::size_t x = run.begin; x < run.end;) {
        const std::size_t end = std::min<std::size_t>(runs.end_of(x), run.end);
        counted.add(region_of_part[run.part], row[x], end - x);
        x = end;
      }
  }
  std::vector<Label> held;
  for (std::size_t label = 1; label < kLabels; ++label)
    if (seen[label]) held.push_back(static_cast<Label>(label));
  const FoundClasses told = classes_found(map, held);
  return {file, told.is_mask, kinds_of(told), by_first_number(std::move(counted), told)};
}

}  // namespace chalcedony
