// `classify`: class maps of pictures by a model.
#ifndef CHALCEDONY_JOB_MAP_CLASSIFY_H_
#define CHALCEDONY_JOB_MAP_CLASSIFY_H_

#include <filesystem>

#include "figure/plot/plot.h"
#include "job/map/class_map.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

struct ClassifyOptions {
  SharedOptions shared;
  std::filesystem::path model;
  double reject_percent = 0;  // see make_classifier()
  ClassMapOptions map;
};

const std::vector<ResultKind>& classify_results();

/// Errors    InputError when the model cannot be used; a picture that fails is listed and the
///           others go on
Json run_classify(const ClassifyOptions& options, const Context& context);

/// report_class_shares() of pictures that were mapped, the `inputs` of the summary.
void report_mapped(Json& summary, Plot& plot, Results& results);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_MAP_CLASSIFY_H_
