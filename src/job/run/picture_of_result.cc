#include "job/run/picture_of_result.h"

#include "job/run/name_begins.h"

namespace chalcedony {

using std::filesystem::path;

PicturesByName::PicturesByName(const std::vector<path>& pictures) : pictures_(pictures) {
  for (const path& picture : pictures) {
    const path stem = picture.stem();
    by_stem_.emplace(stem.string(), &picture);
    if (stem.has_extension()) by_short_stem_.emplace(stem.stem().string(), &picture);
  }
}

PictureOfResult PicturesByName::of(const path& result) const {
  const std::vector<std::string> begins = begins_of(result);
  for (const auto* names : {&by_stem_, &by_short_stem_})
    for (const std::string& begin : begins)
      if (const auto at = names->find(begin); at != names->end()) return {at->second, begin.size()};
  return {};
}

std::optional<std::size_t> PicturesByName::place_of(const path& result) const {
  const path* const picture = of(result).picture;
  if (!picture) return std::nullopt;
  return static_cast<std::size_t>(picture - pictures_.data());
}

}  // namespace chalcedony
