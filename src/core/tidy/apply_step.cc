#include "core/tidy/apply_step.h"

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/tidy/majority.h"
#include "core/tidy/morphology.h"
#include "core/tidy/part_regions.h"
#include "core/tidy/region_steps.h"

namespace chalcedony {
namespace {

using Kind = TidyStep::Kind;

void apply_to_all(LabelGrid& grid, const TidyStep& step) {
  switch (step.kind) {
    case Kind::kDilate:
      return dilate(grid, step.element);
    case Kind::kErode:
      return erode(grid, step.element);
    case Kind::kOpen:
      return open(grid, step.element);
    case Kind::kClose:
      return close(grid, step.element);
    case Kind::kFill:
      return fill_holes(grid, step.count);
    case Kind::kDrop:
      return drop_small(grid, step.count);
    case Kind::kKeep:
      return keep_largest(grid, step.count);
    case Kind::kMajority:
      return majority(grid, static_cast<std::uint32_t>(step.count));
    case Kind::kPart:
      return part_regions(grid, step.deeper);
    case Kind::kClearEdge:
      return clear_edge(grid);
    case Kind::kInvert:
      for (Label& label : grid.labels) label ^= 1;
      return;
  }
}

}  // namespace

void apply_step(LabelGrid& grid, const TidyStep& step, std::span<const Label> classes) {
  if (classes.empty()) return apply_to_all(grid, step);
  std::vector<bool> chosen(kLabels);
  for (const Label label : classes) chosen[label] = true;
  LabelGrid done = grid;
  // Holes of one class may be full of others; all other steps look at one class by itself.
  if (step.kind != Kind::kFill)
    for (Label& label : done.labels)
      if (!chosen[label]) label = 0;
  apply_to_all(done, step);
  for (std::size_t i = 0; i < grid.labels.size(); ++i) {
    const bool is_others = grid.labels[i] != 0 && !chosen[grid.labels[i]];
    if (!is_others && (done.labels[i] == 0 || chosen[done.labels[i]]))
      grid.labels[i] = done.labels[i];
  }
}

}  // namespace chalcedony
