#include "job/run/picture_of_result.h"

#include <string>

#include "core/error.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// Of the pictures that `may` be it.
template <class May>
const path* longest_that_fits(const path& result, const std::vector<path>& pictures,
                              const May& may) {
  const std::string name = result.filename().string();
  const path* found = nullptr;
  for (const path& picture : pictures) {
    const std::string stem = picture.stem().string();
    const bool fits = name.starts_with(stem + ".") || name.starts_with(stem + "-");
    if (fits && may(stem) && (!found || stem.size() > found->stem().string().size()))
      found = &picture;
  }
  return found;
}

}  // namespace

const path* picture_of_result(const path& result, const std::vector<path>& pictures) {
  return longest_that_fits(result, pictures, [](const std::string&) { return true; });
}

const path& picture_beside_result(const path& result, const std::vector<path>& pictures,
                                  const path& folder) {
  const std::string own = result.stem().string();
  const path* const found =
      longest_that_fits(result, pictures, [&](const std::string& stem) { return stem != own; });
  if (!found)
    throw InputError("its name begins with that of no picture in " + folder.string(),
                     "name it after its picture, as pane.mask.png after pane.png", result.string());
  for (const path& other : pictures)
    if (&other != found && other.stem() == found->stem())
      throw InputError("its name goes with both " + found->string() + " and " + other.string(),
                       "move one of the two out of the folder", result.string());
  return *found;
}

}  // namespace chalcedony
