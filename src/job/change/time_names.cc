#include "job/change/time_names.h"

#include <algorithm>
#include <set>

namespace chalcedony {
namespace {

using std::filesystem::path;

/// Whether all are there, and no two are alike.
bool tell_apart(const std::vector<std::string>& names) {
  const std::set<std::string> different(names.begin(), names.end());
  return different.size() == names.size() && !different.contains("");
}

/// What `name_of` finds at all maps of a time; empty where it is not the same.
template <class NameOf>
std::vector<std::string> common_names(const std::vector<std::vector<path>>& times,
                                      const NameOf& name_of) {
  std::vector<std::string> names;
  for (const std::vector<path>& maps : times) {
    const std::string first = name_of(maps.front());
    const bool common = std::all_of(maps.begin(), maps.end(),
                                    [&](const path& map) { return name_of(map) == first; });
    names.push_back(common ? first : "");
  }
  return names;
}

/// Without the folders that all begin with, and those that all end with.
std::vector<std::string> differing_parts(const std::vector<std::string>& folders) {
  std::vector<std::vector<path>> parts;
  for (const std::string& folder : folders) {
    const path whole(folder);
    parts.emplace_back(whole.begin(), whole.end());
  }
  const auto all_share = [&](const auto& part_of) {
    return std::all_of(parts.begin(), parts.end(), [&](const std::vector<path>& one) {
      return !one.empty() && part_of(one) == part_of(parts.front());
    });
  };
  while (all_share([](const std::vector<path>& one) { return one.front(); }))
    for (std::vector<path>& one : parts) one.erase(one.begin());
  while (all_share([](const std::vector<path>& one) { return one.back(); }))
    for (std::vector<path>& one : parts) one.pop_back();
  std::vector<std::string> names;
  for (const std::vector<path>& one : parts) {
    path name;
    for (const path& part : one) name /= part;
    names.push_back(name.string());
  }
  return names;
}

/// What follows the last point, hyphen or underline of a name.
std::string ending_of(const path& map) {
  const std::string stem = map.stem().string();
  const std::size_t before = stem.find_last_of(".-_");
  return before == std::string::npos ? "" : stem.substr(before + 1);
}

}  // namespace

std::vector<std::string> time_names(const std::vector<std::vector<path>>& times) {
  const std::vector<std::string> folders =
      common_names(times, [](const path& map) { return map.parent_path().string(); });
  if (tell_apart(folders)) {
    const std::vector<std::string> names = differing_parts(folders);
    return tell_apart(names) ? names : folders;
  }
  std::vector<std::string> endings = common_names(times, ending_of);
  if (tell_apart(endings)) return endings;
  for (std::size_t t = 0; t < times.size(); ++t) endings[t] = "time " + std::to_string(t + 1);
  return endings;
}

}  // namespace chalcedony
