// Inputs that were not done: how they are listed, in the summary and in failures.csv.
#ifndef CHALCEDONY_JOB_RUN_FAILURES_H_
#define CHALCEDONY_JOB_RUN_FAILURES_H_

#include <filesystem>
#include <string>
#include <vector>

#include "job/run/summary.h"

namespace chalcedony {

struct Failure {
  std::filesystem::path file;
  std::string error;  // the line on stderr
};

/// An entry of `failed` in a summary.
Json failure_json(const Failure& failure);

/// Where the failures of a run into this folder are listed.
std::filesystem::path failures_path(const std::filesystem::path& folder);

/// Writes the list into a results folder, or removes one that is not needed any more. Whether it
/// was written.
///
/// Errors    OutputError
bool write_failures(const std::filesystem::path& folder, const std::vector<Failure>& failures);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_FAILURES_H_
