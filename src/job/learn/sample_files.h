// Which sample files belong to which input.
#ifndef CHALCEDONY_JOB_LEARN_SAMPLE_FILES_H_
#define CHALCEDONY_JOB_LEARN_SAMPLE_FILES_H_

#include <filesystem>
#include <vector>

namespace chalcedony {

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
