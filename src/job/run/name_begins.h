// What a file may be called after: the beginnings of its name.
#ifndef CHALCEDONY_JOB_RUN_NAME_BEGINS_H_
#define CHALCEDONY_JOB_RUN_NAME_BEGINS_H_

#include <filesystem>
#include <string>
#include <vector>

namespace chalcedony {

/// What the name of a file begins with, before each of its points and hyphens, or what `cuts` are
/// instead, as `pane-2.mask`, `pane-2` and `pane` of `pane-2.mask.png`; the longest first.
inline std::vector<std::string> begins_of(const std::filesystem::path& file,
                                          const char* cuts = ".-") {
  const std::string name = file.filename().string();
  std::vector<std::string> begins;
  for (std::size_t at = name.find_last_of(cuts); at != std::string::npos && at > 0;
       at = name.find_last_of(cuts, at - 1))
    begins.push_back(name.substr(0, at));
  return begins;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_NAME_BEGINS_H_
