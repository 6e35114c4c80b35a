// `inspect`: what a picture file is, and the statistics of its channels.
#ifndef CHALCEDONY_JOB_LOOK_INSPECT_H_
#define CHALCEDONY_JOB_LOOK_INSPECT_H_

#include <cstdint>
#include <filesystem>
#include <optional>
#include <utility>
#include <vector>

#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

struct InspectOptions {
  SharedOptions shared;
  std::vector<Channel> channels;  // of the statistics; none: the picture's own. Those that people
                                  // define are added
  std::vector<std::pair<std::int64_t, std::int64_t>> at;  // pixels whose values are wanted
  std::optional<Region> values;               // pixels whose values are printed as a grid
  std::optional<std::filesystem::path> grid;  // a copy with coordinates, PNG, SVG or PDF
};

const std::vector<ResultKind>& inspect_results();

/// Reads every input once, or twice when percentiles need it.
Json run_inspect(const InspectOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LOOK_INSPECT_H_
