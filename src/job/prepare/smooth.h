// `smooth`: noise taken down, small bright or dark things taken away.
#ifndef CHALCEDONY_JOB_PREPARE_SMOOTH_H_
#define CHALCEDONY_JOB_PREPARE_SMOOTH_H_

#include "core/filter/band_filter.h"
#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

struct SmoothOptions {
  SharedOptions shared;
  Filter filter;
};

/// Errors    UsageError for an output format that cannot hold the result
Json run_smooth(const SmoothOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PREPARE_SMOOTH_H_
