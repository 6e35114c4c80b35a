// The picture that a file was made of, by their names.
#ifndef CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_
#define CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_

#include <filesystem>
#include <vector>

namespace chalcedony {

/// Of `pictures` the one whose stem the name of a file begins with, before a point or a hyphen, as
/// `pane` for `pane.mask.png`; of several the one with the longest. Null when there is none.
const std::filesystem::path* picture_of_result(const std::filesystem::path& result,
                                               const std::vector<std::filesystem::path>& pictures);

/// The same for a picture that stands beside the file in a job; one with the whole stem of the file
/// is the file itself, or another version of it.
///
/// Errors    InputError when there is none, or two of one stem; `folder` is where the pictures are
const std::filesystem::path& picture_beside_result(
    const std::filesystem::path& result, const std::vector<std::filesystem::path>& pictures,
    const std::filesystem::path& folder);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_
