// The picture that a file was made of, by their names.
#ifndef CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_
#define CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_

#include <filesystem>
#include <string>
#include <vector>

namespace chalcedony {

/// Whether a file is called after a stem: its name begins with it, before a point or a hyphen, as
/// `pane.mask.png` with `pane`.
bool is_called_after(const std::filesystem::path& file, const std::string& stem);

/// Of `pictures` the one after whose stem a file is called; of several the one with the longest.
/// Null when there is none.
const std::filesystem::path* picture_of_result(const std::filesystem::path& result,
                                               const std::vector<std::filesystem::path>& pictures);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_
