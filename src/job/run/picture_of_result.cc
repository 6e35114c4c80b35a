#include "job/run/picture_of_result.h"

namespace chalcedony {

using std::filesystem::path;

bool is_called_after(const path& file, const std::string& stem) {
  const std::string name = file.filename().string();
  return !stem.empty() && (name.starts_with(stem + ".") || name.starts_with(stem + "-"));
}

const path* picture_of_result(const path& result, const std::vector<path>& pictures) {
  const path* found = nullptr;
  for (const path& picture : pictures) {
    const std::string stem = picture.stem().string();
    if (is_called_after(result, stem) && (!found || stem.size() > found->stem().string().size()))
      found = &picture;
  }
  return found;
}

}  // namespace chalcedony
