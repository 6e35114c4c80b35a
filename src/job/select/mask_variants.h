// A selection tried with different numbers in one pass: a sheet of masks and their coverage.
#ifndef CHALCEDONY_JOB_SELECT_MASK_VARIANTS_H_
#define CHALCEDONY_JOB_SELECT_MASK_VARIANTS_H_

#include <vector>

#include "core/select/variants.h"
#include "job/run/context.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

struct MaskVariantOptions {
  SharedOptions shared;
  std::vector<Variable> variables;
  std::vector<Variant> variants;  // selections that can be read
};

/// Writes <stem>.variants.csv and <stem>.variants.figure. `results` are those of mask.
Json run_mask_variants(const MaskVariantOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SELECT_MASK_VARIANTS_H_
