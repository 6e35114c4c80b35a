// `truth`: pixels of class maps drawn at random, for a person to say what they truly are.
#ifndef CHALCEDONY_JOB_TRUTH_TRUTH_H_
#define CHALCEDONY_JOB_TRUTH_TRUTH_H_

#include <filesystem>
#include <vector>

#include "job/assess/draw_design.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

struct TruthOptions {
  SharedOptions shared;         // the inputs are the maps
  std::filesystem::path image;  // the picture of the map, or a folder or a pattern of them
  DrawDesign draw;              // from each map
};

const std::vector<ResultKind>& truth_results();

/// Errors    InputError when nothing can be drawn of the only map; OutputError
Json run_truth(const TruthOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_TRUTH_TRUTH_H_
