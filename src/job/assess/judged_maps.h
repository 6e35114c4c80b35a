// The maps of an assessment judged: one by one, together, and how much they differ.
#ifndef CHALCEDONY_JOB_ASSESS_JUDGED_MAPS_H_
#define CHALCEDONY_JOB_ASSESS_JUDGED_MAPS_H_

#include <cstddef>
#include <optional>
#include <vector>

#include "core/assess/sample_draw.h"
#include "core/stats/share_of_units.h"
#include "job/assess/assess.h"
#include "job/assess/assessed_files.h"
#include "job/assess/assessed_maps.h"
#include "job/assess/assessment.h"
#include "job/run/context.h"

namespace chalcedony {

struct JudgedMap {
  AssessedFiles files;
  Assessment assessment;
};

struct JudgedMaps {
  std::vector<JudgedMap> each;
  Assessment together;  // of the pixels of all maps
  // Those that were drawn, in the order of the draw, or are in tables, numbered through all maps.
  std::vector<DrawnPixel> sampled;
  std::optional<ShareOfUnits> between;  // the accuracy of several maps, by how much they differ
  // Of the maps of each --versus, likewise how much more is right; none when that cannot be said.
  std::vector<std::optional<ShareOfUnits>> gains;

  bool alone() const { return each.size() == 1; }
  const ClassMatching& matching(std::size_t map) const { return each[map].assessment.map.matching; }
};

/// Matches the classes of the maps, draws what is to be drawn, and judges what was. Warnings go to
/// the context.
///
/// Errors    InputError, see match_classes and drawn_sample; Interrupted
JudgedMaps judge_maps(AssessedMaps& maps, const AssessOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_JUDGED_MAPS_H_
