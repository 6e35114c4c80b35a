// The results a command can write, and which of them --write may name.
#ifndef CHALCEDONY_JOB_RUN_RESULT_KIND_H_
#define CHALCEDONY_JOB_RUN_RESULT_KIND_H_

#include <string>
#include <string_view>
#include <vector>

#include "job/run/context.h"

namespace chalcedony {

/// A result a command can write, by the name `--write` uses for it.
struct ResultKind {
  std::string_view name;
  std::string_view meaning;
  /// With which options there is one: "cube", "method all", any of "count,every", or "not apply".
  std::string_view when = {};
};

/// What a result is, and when there is one, as in "the main peaks (with --peaks)".
std::string result_text(const ResultKind& kind);

/// Checks what --write names.
///
/// Errors    UsageError for what is none of `kinds`, or has no such result with the options given
void check_asked_for(const SharedOptions& options, const std::vector<ResultKind>& kinds);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_RESULT_KIND_H_
