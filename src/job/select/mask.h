// `mask`: the pixels a selection takes, as a mask and as a cut-out.
#ifndef CHALCEDONY_JOB_SELECT_MASK_H_
#define CHALCEDONY_JOB_SELECT_MASK_H_

#include <memory>
#include <optional>
#include <vector>

#include "core/select/expression.h"
#include "core/tidy/tidy_steps.h"
#include "job/run/context.h"
#include "job/run/partner_files.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"
#include "job/select/cutout.h"
#include "job/select/derived_selection.h"

namespace chalcedony {

struct MaskOptions {
  SharedOptions shared;
  // One of these says what is selected.
  std::optional<Expression> where;
  std::optional<LikeOptions> like;
  std::optional<Channel> threshold;  // --auto
  bool invert = false;
  // Masks that go with the inputs, taken in this order.
  std::vector<std::shared_ptr<const PartnerFiles>> only_in, also_in, not_in;
  std::vector<TidyStep> tidy;  // done on what all of that selects
  CutoutOptions cutout;
};

const std::vector<ResultKind>& mask_results();

Json run_mask(const MaskOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SELECT_MASK_H_
