// The picture that a file was made of, by their names.
#ifndef CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_
#define CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_

#include <filesystem>
#include <vector>

namespace chalcedony {

/// Of `pictures` the one after whose stem a file is called: its name begins with it, before a point
/// or a hyphen, as `pane.mask.png` with `pane`. Of several the one with the longest; null when
/// there is none.
const std::filesystem::path* picture_of_result(const std::filesystem::path& result,
                                               const std::vector<std::filesystem::path>& pictures);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_
