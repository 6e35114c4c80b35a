// What pictures are called where several stand beside each other.
#ifndef CHALCEDONY_JOB_PICTURE_SHORT_NAMES_H_
#define CHALCEDONY_JOB_PICTURE_SHORT_NAMES_H_

#include <filesystem>
#include <string>
#include <vector>

namespace chalcedony {

/// The names of files, or their paths where two have one name.
std::vector<std::string> short_names(const std::vector<std::filesystem::path>& files);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_SHORT_NAMES_H_
