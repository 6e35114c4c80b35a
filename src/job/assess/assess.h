// `assess`: how right a class map is, by a reference.
#ifndef CHALCEDONY_JOB_ASSESS_ASSESS_H_
#define CHALCEDONY_JOB_ASSESS_ASSESS_H_

#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "job/assess/draw_design.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

struct AssessOptions {
  SharedOptions shared;             // the inputs are the maps
  std::filesystem::path reference;  // of several maps a folder or a pattern, as are `versus`
  std::vector<std::filesystem::path> versus;  // at most kMostVersus, that the maps are held against
  std::optional<std::filesystem::path> model;              // its training pixels are left out
  std::vector<std::pair<std::string, std::string>> match;  // class of the map, of the reference
  DrawDesign draw;                                         // of the labelled pixels
  double level = 0.95;                                     // of confidence intervals, 0-1
  std::optional<double> plan;  // half-width of the interval a later sample should have, 0-1
  std::size_t show = 0;        // assessed pixels to list in the summary
};

const std::vector<ResultKind>& assess_results();

/// Several maps are judged one by one and together: classes of one name are the same in all of
/// them, and a sample is drawn from the pixels of all.
///
/// Errors    UsageError for several maps with one reference, or two of one picture; InputError: any
///           file that cannot be used stops the run, unless bad ones are left out
Json run_assess(const AssessOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_ASSESS_H_
