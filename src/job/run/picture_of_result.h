// The picture that a file was made of, by their names.
#ifndef CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_
#define CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_

#include <cstddef>
#include <filesystem>
#include <vector>

namespace chalcedony {

struct PictureOfResult {
  const std::filesystem::path* picture = nullptr;  // null when there is none
  std::size_t named = 0;  // letters of the result's name that are the picture's
};

/// Of `pictures` the one after which a file is called: its name begins with the picture's, before a
/// point or a hyphen. That name is the stem, as `pane` of `pane.png` for `pane.mask.png`; where no
/// stem fits, the stem without its last part, as `pane` of `pane.classes.png` for
/// `pane.errors.png`. Of several the longest.
PictureOfResult picture_of_result(const std::filesystem::path& result,
                                  const std::vector<std::filesystem::path>& pictures);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_
