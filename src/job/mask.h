// `mask`: the pixels a selection takes, as a mask and as a cut-out.
#ifndef CHALCEDONY_JOB_MASK_H_
#define CHALCEDONY_JOB_MASK_H_

#include "core/select/expression.h"
#include "job/context.h"
#include "job/results.h"
#include "job/summary.h"

namespace chalcedony {

struct MaskOptions {
  SharedOptions shared;
  Expression where;
};

const std::vector<ResultKind>& mask_results();

Json run_mask(const MaskOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_MASK_H_
