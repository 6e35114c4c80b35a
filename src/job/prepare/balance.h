// `balance`: light evened out, channels brought to a common median, contrast set.
#ifndef CHALCEDONY_JOB_PREPARE_BALANCE_H_
#define CHALCEDONY_JOB_PREPARE_BALANCE_H_

#include <filesystem>
#include <optional>

#include "job/prepare/learned_curves.h"
#include "job/prepare/light_correction.h"
#include "job/run/summary.h"

namespace chalcedony {

struct BalanceOptions {
  SharedOptions shared;
  std::optional<FlatField> flat;
  CurveWish curves;
  std::optional<std::filesystem::path> like;  // the picture whose values are wanted
  bool on_lightness = false;
  std::optional<std::filesystem::path> save, apply;
};

/// The statistics are of the counted pixels; all pixels are changed.
///
/// Errors    UsageError when the file that is named cannot hold the result
Json run_balance(const BalanceOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PREPARE_BALANCE_H_
