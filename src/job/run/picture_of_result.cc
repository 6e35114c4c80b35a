#include "job/run/picture_of_result.h"

#include <string>

namespace chalcedony {

using std::filesystem::path;

const path* picture_of_result(const path& result, const std::vector<path>& pictures) {
  const std::string name = result.filename().string();
  const path* found = nullptr;
  for (const path& picture : pictures) {
    const std::string stem = picture.stem().string();
    const bool fits = name.starts_with(stem + ".") || name.starts_with(stem + "-");
    if (fits && (!found || stem.size() > found->stem().string().size())) found = &picture;
  }
  return found;
}

}  // namespace chalcedony
