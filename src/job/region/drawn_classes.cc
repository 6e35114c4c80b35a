#include "job/region/drawn_classes.h"

#include <algorithm>
#include <cstddef>
#include <string>
#include <vector>

#include "core/error.h"
#include "core/letter_case.h"
#include "core/palette/figure_colors.h"

namespace chalcedony {
namespace {

/// The lowest number that no class has.
Label free_number(const std::vector<LegendEntry>& classes, const std::string& name) {
  std::vector<bool> taken(kLabels);
  taken[0] = true;
  for (const LegendEntry& entry : classes) taken[entry.index] = true;
  const auto free = std::find(taken.begin(), taken.end(), false);
  if (free == taken.end())
    throw InputError("draws '" + name + "', and the map has no number left for another class",
                     "draw it as one of the map's classes");
  return static_cast<Label>(free - taken.begin());
}

Label label_in_mask(const SampleClass& drawn) {
  const std::string name = lower_case(drawn.name);
  if (name == "unselected") return 0;
  if (name != kSelected)
    throw InputError("draws '" + drawn.name + "', and what it is drawn on is a mask",
                     "call regions of a mask selected or unselected");
  return 1;
}

Label label_in_map(const SampleClass& drawn, std::vector<LegendEntry>& classes) {
  const std::string name = lower_case(drawn.name);
  if (name == "unclassified") return 0;
  for (const LegendEntry& entry : classes)
    if (lower_case(entry.name) == name) return static_cast<Label>(entry.index);
  const Label number = free_number(classes, drawn.name);
  classes.push_back(
      {number, drawn.name, drawn.color.empty() ? css_hex(class_color(number - 1u)) : drawn.color});
  return number;
}

}  // namespace

std::uint64_t draw_classes(const SampleSet& regions, LabelPicture& picture) {
  LabelGrid& grid = picture.grid;
  const std::vector<SampleRun> runs = sample_runs(regions, grid.width, grid.height);
  for (const SharedPixels& shared : pixels_shared_by_pairs(runs))
    throw InputError("regions of '" + regions.classes[shared.first].name + "' and '" +
                         regions.classes[shared.second].name + "' share pixels",
                     "draw them apart");
  std::vector<Label> labels;
  for (const SampleClass& drawn : regions.classes)
    labels.push_back(picture.is_mask ? label_in_mask(drawn) : label_in_map(drawn, picture.classes));
  std::uint64_t changed = 0;
  for (const SampleRun& run : runs)
    for (std::uint64_t pixel = run.begin; pixel < run.end; ++pixel) {
      changed += grid.labels[pixel] != labels[run.sample_class];
      grid.labels[pixel] = labels[run.sample_class];
    }
  return changed;
}

}  // namespace chalcedony
