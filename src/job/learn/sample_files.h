// Which sample files belong to which input.
#ifndef CHALCEDONY_JOB_LEARN_SAMPLE_FILES_H_
#define CHALCEDONY_JOB_LEARN_SAMPLE_FILES_H_

#include <filesystem>
#include <vector>

#include "job/run/run_ledger.h"

namespace chalcedony {

/// The files that a value of --samples stands for: itself, or of a folder or a pattern those that
/// go with the inputs, in their order, which are noted in the ledger (see PartnerFiles).
///
/// Errors    InputError when an input is without one and `all` need one, or two go with it alike,
///           or none with any; as PartnerFiles
std::vector<std::filesystem::path> sample_files_meant(
    const std::filesystem::path& named, const std::vector<std::filesystem::path>& inputs, bool all,
    RunLedger& ledger);

/// The files of each input, in the order they were given: all of them of a single input; one each,
/// in their order, where there are no more than inputs; else those that are called after the input,
/// as `pane.samples.geojson` and `pane.suggested.geojson` after `pane.png`, see PicturesByName.
///
/// Where some inputs may be without one (not `all`), names come first, and the order says only
/// where a file is called after none.
///
/// Errors    UsageError when an input is left without one that needs it, or a file is called after
/// no input
std::vector<std::vector<std::filesystem::path>> sample_files_of(
    const std::vector<std::filesystem::path>& files,
    const std::vector<std::filesystem::path>& inputs, bool all = true);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_SAMPLE_FILES_H_
