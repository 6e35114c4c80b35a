#include "job/run/picture_of_result.h"

#include <string>

namespace chalcedony {

using std::filesystem::path;

PictureOfResult picture_of_result(const path& result, const std::vector<path>& pictures) {
  const std::string name = result.filename().string();
  const auto longest = [&](auto&& name_of) {
    PictureOfResult found;
    for (const path& picture : pictures) {
      const std::string own = name_of(picture);
      const bool fits = name.starts_with(own + ".") || name.starts_with(own + "-");
      if (fits && own.size() > found.named) found = {&picture, own.size()};
    }
    return found;
  };
  const PictureOfResult by_stem = longest([](const path& p) { return p.stem().string(); });
  if (by_stem.picture) return by_stem;
  return longest([](const path& p) { return p.stem().stem().string(); });
}

}  // namespace chalcedony
