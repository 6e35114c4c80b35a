// The inputs of a run, one by one and side by side: what fails is told and left out, what an
// earlier run has done is taken over, and what is made of each is put together in the order of the
// inputs.
#ifndef CHALCEDONY_JOB_REPEAT_EACH_INPUT_H_
#define CHALCEDONY_JOB_REPEAT_EACH_INPUT_H_

#include <filesystem>
#include <functional>
#include <vector>

#include "job/run/context.h"
#include "job/run/partner_files.h"
#include "job/run/picture_journal.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Whether a job makes a result of each input, or one of all of them: such a job has no journal,
/// and an input that fails stops it unless bad ones are to be left out.
enum class ResultOf { kEachInput, kAllInputs };

/// What is done with one input; its summary.
using InputWork = std::function<Json(const std::filesystem::path&, const Context&)>;

/// Does `work` for each input, or for those of the shard, and appends what it returns to the
/// summary's `inputs`, and the files it wrote to `outputs`. Several pictures are worked on at once,
/// so `work` must be free to run on several threads; the result does not depend on it. It is given
/// a context of its own, whose messages come in the order of the inputs.
///
/// An input that fails is reported and listed under `failed`, and the others go on. Of several
/// inputs, with a folder to write to: those that failed are in failures.csv; the tables of all are
/// joined (write_long_tables); what is done is in the journal (PictureJournal), and with
/// `options.resume` pictures that did not change since are left out and counted as `unchanged`.
/// `partners` are those that inputs may be without: one that came since is a change.
///
/// Errors    Interrupted; whatever `work` throws but InputError and OutputError; InputError too
///           when an input stops the job
void for_each_input(const SharedOptions& options, const Context& context, Json& summary,
                    const InputWork& work, ResultOf result = ResultOf::kEachInput,
                    const PartnerFiles* partners = nullptr);

/// The files that write_joint_tables() writes for these pictures.
std::vector<std::filesystem::path> joint_tables(const std::vector<JournalEntry>& entries,
                                                const SharedOptions& options);

/// What makes a whole of the results of several pictures in a folder: failures.csv and the long
/// tables. Returns the files; a list of failures that is not needed any more is removed.
///
/// Errors    InputError, OutputError
std::vector<std::filesystem::path> write_joint_tables(const std::vector<JournalEntry>& entries,
                                                      const SharedOptions& options,
                                                      const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REPEAT_EACH_INPUT_H_
