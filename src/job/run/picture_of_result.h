// The picture that a file was made of, by their names.
#ifndef CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_
#define CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_

#include <cstddef>
#include <filesystem>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace chalcedony {

struct PictureOfResult {
  const std::filesystem::path* picture = nullptr;  // null when there is none
  std::size_t named = 0;  // letters of the result's name that are the picture's
};

/// Pictures by what their results are called.
class PicturesByName {
 public:
  /// A picture that is called as one before it is not found.
  ///
  /// Shape     the pictures outlive it, where they are
  explicit PicturesByName(const std::vector<std::filesystem::path>& pictures);

  /// The picture after which a file is called: its name begins with the picture's, before a point
  /// or a hyphen. That name is the stem, as `pane` of `pane.png` for `pane.mask.png`; where no stem
  /// fits, the stem without its last part, as `pane` of `pane.classes.png` for `pane.errors.png`.
  /// Of several the longest.
  PictureOfResult of(const std::filesystem::path& result) const;
  /// Where that picture stands among those there are; nothing when there is none.
  std::optional<std::size_t> place_of(const std::filesystem::path& result) const;

 private:
  const std::vector<std::filesystem::path>& pictures_;
  std::map<std::string, const std::filesystem::path*> by_stem_, by_short_stem_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_PICTURE_OF_RESULT_H_
