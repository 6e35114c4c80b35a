// `correct`: colors of pictures brought to those that patches are known to have.
#ifndef CHALCEDONY_JOB_PREPARE_CORRECT_H_
#define CHALCEDONY_JOB_PREPARE_CORRECT_H_

#include <filesystem>
#include <optional>

#include "job/prepare/judged_patches.h"
#include "job/run/summary.h"

namespace chalcedony {

struct CorrectOptions {
  SharedOptions shared;
  PatchSource patches;  // on the one input
  CorrectionKind kind = CorrectionKind::kMatrix;
  std::optional<std::filesystem::path> save;   // the correction
  std::optional<std::filesystem::path> apply;  // one that was saved, in place of patches
};

/// Patches are judged by their pixels that count; all pixels are corrected.
///
/// Errors    UsageError when the file that is named cannot hold the result
Json run_correct(const CorrectOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PREPARE_CORRECT_H_
