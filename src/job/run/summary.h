// What a run reports: one JSON object, from which the text for people is made too.
#ifndef CHALCEDONY_JOB_RUN_SUMMARY_H_
#define CHALCEDONY_JOB_RUN_SUMMARY_H_

#include <cmath>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "core/channel/channel_plan.h"
#include "core/pixel/block_reader.h"

namespace chalcedony {

using Json = nlohmann::ordered_json;

inline constexpr int kSummaryVersion = 1;

/// The frame of a summary; `inputs`, `outputs` and `failed` are empty lists. The fields of each
/// command are listed in docs/summaries.md.
inline Json summary_frame(const std::string& command) {
  return Json{{"chalcedony", "summary"}, {"version", kSummaryVersion}, {"command", command},
              {"inputs", Json::array()}, {"outputs", Json::array()},   {"failed", Json::array()}};
}

/// The excluded pixels of each kind that is not 0.
Json excluded_json(const Excluded& excluded);

/// Adds `near_gray_percent` when more than a tenth of the counted pixels are so near to gray that
/// their hue is mostly noise.
void note_near_gray(Json& picture, std::uint64_t near_gray, std::uint64_t counted);

/// Adds the lowest and the highest of the percents of several pictures, with the first file that
/// has it: `lowest_percent`, `lowest_file`, `highest_percent`, `highest_file`.
///
/// Shape     as many of both, one at least
void add_lowest_and_highest(Json& json, const std::vector<double>& percents,
                            const std::vector<std::string>& files);

/// part / whole in percent; 0 of nothing is 0.
inline double percent(std::uint64_t part, std::uint64_t whole) {
  return whole == 0 ? 0 : 100.0 * static_cast<double>(part) / static_cast<double>(whole);
}

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_SUMMARY_H_
