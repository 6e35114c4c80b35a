// What the times of maps are called.
#ifndef CHALCEDONY_JOB_CHANGE_TIME_NAMES_H_
#define CHALCEDONY_JOB_CHANGE_TIME_NAMES_H_

#include <filesystem>
#include <string>
#include <vector>

namespace chalcedony {

/// Of the maps that several places have at each time, as many at each: in what the folder of those
/// of a time differs from the others (`1911` of `survey/1911`), or how the names of all of a time
/// end (`1911` of `pane-a.1911.png`), where that tells the times apart; else `time 1` and so on.
std::vector<std::string> time_names(const std::vector<std::vector<std::filesystem::path>>& times);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CHANGE_TIME_NAMES_H_
