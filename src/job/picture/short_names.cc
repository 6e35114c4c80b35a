#include "job/picture/short_names.h"

#include <set>

namespace chalcedony {

std::vector<std::string> short_names(const std::vector<std::filesystem::path>& files) {
  std::vector<std::string> names, paths;
  for (const std::filesystem::path& file : files) {
    paths.push_back(file.string());
    names.push_back(file.filename().string());
  }
  return std::set<std::string>(names.begin(), names.end()).size() == names.size() ? names : paths;
}

}  // namespace chalcedony
