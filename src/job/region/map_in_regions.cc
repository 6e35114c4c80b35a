#include "job/region/map_in_regions.h"

#include <algorithm>
#include <map>
#include <utility>

#include "core/learn/map_class.h"
#include "core/palette/figure_colors.h"
#include "core/pixel/label_runs.h"
#include "core/pixel/seen_labels.h"
#include "io/picture/label_picture.h"
#include "job/map/class_shares.h"
#include "job/picture/label_input.h"
#include "job/picture/same_size.h"

namespace chalcedony {
namespace {

/// The classes that the entries of a map make, and those of its numbers that share a name with an
/// earlier one, which stands for them.
struct ClassesByName {
  std::vector<LegendEntry> classes;
  std::map<Label, Label> instead;
};

ClassesByName by_name(const FoundClasses& told) {
  std::vector<MapClass> entries;
  for (const LegendEntry& entry : told.classes)
    entries.push_back({entry.name, color_on_paper(told.is_mask, entry.color)});
  const std::vector<Label> numbers = class_numbers(entries);
  ClassesByName named;
  for (std::size_t i = 0; i < entries.size(); ++i) {
    const unsigned index = told.classes[i].index;
    if (numbers[i] > named.classes.size())
      named.classes.push_back({index, entries[i].name, entries[i].color});
    else
      named.instead.emplace(index, named.classes[numbers[i] - 1u].index);
  }
  return named;
}

/// The counts with other labels in place of some.
RegionLabels relabeled(const RegionLabels& counted, const std::map<Label, Label>& instead) {
  RegionLabels labels(counted.regions());
  for (std::size_t r = 0; r < counted.regions(); ++r)
    for (const LabelPixels& one : counted.of(r)) {
      const auto other = instead.find(one.label);
      labels.add(r, other == instead.end() ? one.label : other->second, one.pixels);
    }
  return labels;
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
  SeenLabels seen;
  RunLinker linker(shape.width, connectivity);
  LabelRuns runs(shape.width);
  labels.rows->rewind();
  LabelRows rows(labels), map_rows(map);
  for (std::uint32_t y = 0; y < shape.height; ++y) {
    const Label* const row = map_rows.next();
    runs.set(row);
    for (std::size_t x = 0; x < shape.width; x = runs.end_of(x)) seen.add(row[x]);
    for (const RegionRun& run : linker.add_row(rows.next()))
      for (std::size_t x = run.begin; x < run.end;) {
        const std::size_t end = std::min<std::size_t>(runs.end_of(x), run.end);
        counted.add(region_of_part[run.part], row[x], end - x);
        x = end;
      }
  }
  const FoundClasses told = classes_found(map, seen.labels());
  ClassesByName named = by_name(told);
  if (!named.instead.empty()) counted = relabeled(counted, named.instead);
  if (!told.is_mask) named.classes.push_back({0, "unclassified", kUnclassifiedColor});
  return {file, told.is_mask, std::move(named.classes), std::move(counted)};
}

}  // namespace chalcedony
