// `explain`: how a model comes to its decision on single pixels.
#ifndef CHALCEDONY_JOB_MAP_EXPLAIN_H_
#define CHALCEDONY_JOB_MAP_EXPLAIN_H_

#include <cstdint>
#include <filesystem>
#include <utility>
#include <vector>

#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

struct ExplainOptions {
  SharedOptions shared;
  std::filesystem::path model;
  std::vector<std::pair<std::int64_t, std::int64_t>> at;  // x, y
  std::uint64_t first = 0;  // or so many counted pixels from the top left
};

const std::vector<ResultKind>& explain_results();

/// Errors    InputError when the model cannot be used, or a place lies outside the picture
Json run_explain(const ExplainOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_MAP_EXPLAIN_H_
