// What a grouping says as tables and JSON.
#ifndef CHALCEDONY_JOB_CLUSTER_CLUSTER_REPORT_H_
#define CHALCEDONY_JOB_CLUSTER_CLUSTER_REPORT_H_

#include <filesystem>
#include <string>
#include <vector>

#include "job/cluster/color_points.h"
#include "job/cluster/group_choice.h"
#include "job/cluster/grouping.h"
#include "job/run/summary.h"

namespace chalcedony {

/// One row for each group.
void write_centers(const std::filesystem::path& path, const Grouping& grouping,
                   const ColorPoints& colors);

/// One row for each class of a picture, from the summary's input.
void write_shares(const std::filesystem::path& path, const Json& picture);

/// One row for each number of groups.
void write_criteria(const std::filesystem::path& path, const std::vector<GroupCriteria>& criteria);
Json criteria_json(const std::vector<GroupCriteria>& criteria);

/// How the groups were found and what they are.
Json grouping_json(const Grouping& grouping, const ColorPoints& colors);

/// "6 groups, lone 0.42 %"
std::string choice_title(std::size_t k, double lone_percent);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CLUSTER_CLUSTER_REPORT_H_
