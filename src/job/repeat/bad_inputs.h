// Inputs that cannot be used, where one result is made of many: such a job stops at the first one,
// unless it was asked to leave them out.
#ifndef CHALCEDONY_JOB_REPEAT_BAD_INPUTS_H_
#define CHALCEDONY_JOB_REPEAT_BAD_INPUTS_H_

#include <filesystem>
#include <functional>
#include <vector>

#include "core/error.h"
#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Reads an input to its end: a picture here, a table by `read_table`.
///
/// Errors    InputError when that fails, or no pixel of a picture counts
void check_input(const std::filesystem::path& path, const SharedOptions& options,
                 const Context& context, const std::function<void()>& read_table);

/// The inputs that can be used, by their places; all when bad ones are not to be left out. Else
/// `check` is called for each, and an input of which it throws an InputError is told, and listed
/// under `failed` of the summary and in failures.csv of the results folder. Inputs are checked
/// beforehand because one that breaks off has left its mark on the result by then.
///
/// Errors    InputError when none can be used; Interrupted, OutputError
std::vector<std::size_t> usable_inputs(
    const SharedOptions& options, const Context& context, Json& summary,
    const std::function<void(const std::filesystem::path&)>& check);

/// The error of an input that stops a job on several, with the way out.
InputError with_way_out(const InputError& error, const SharedOptions& options);

/// What work() returns; the error of an input tells the way out.
template <class Work>
auto stopped_by_bad(const SharedOptions& options, const Work& work) {
  try {
    return work();
  } catch (const InputError& error) {
    throw with_way_out(error, options);
  }
}

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REPEAT_BAD_INPUTS_H_
