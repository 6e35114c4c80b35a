// Which sample files belong to which input.
#ifndef CHALCEDONY_JOB_LEARN_SAMPLE_FILES_H_
#define CHALCEDONY_JOB_LEARN_SAMPLE_FILES_H_

#include <filesystem>
#include <vector>

#include "job/run/run_ledger.h"

namespace chalcedony {

/// The files of each input, in the order they were given: all of them of a single input; else those
/// that are called after the input, as `pane.samples.geojson` and `pane.suggested.geojson` after
/// `pane.png`, see PicturesByName. Where one is called after none, or (when `all` inputs need one)
/// an input is left without, they go with the inputs in their order if there are no more of them;
/// those that may be without one, if there are as many.
///
/// Errors    UsageError when an input is left without one that needs it, or a file is called after
/// no input
std::vector<std::vector<std::filesystem::path>> sample_files_of(
    const std::vector<std::filesystem::path>& files,
    const std::vector<std::filesystem::path>& inputs, bool all = true);

/// The files of each input by the values of --samples: those of folders and patterns that go with
/// it, which are noted in the ledger (see PartnerFiles), then of files as sample_files_of() says.
///
/// Errors    InputError when an input goes with none of a folder and `all` need one, or with two
///           alike, or none with any; as PartnerFiles; UsageError as sample_files_of()
std::vector<std::vector<std::filesystem::path>> sample_files_named(
    const std::vector<std::filesystem::path>& named,
    const std::vector<std::filesystem::path>& inputs, bool all, RunLedger& ledger);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_SAMPLE_FILES_H_
