// What `spots` says of a picture: a table and a part of the summary.
#ifndef CHALCEDONY_JOB_SPOT_SPOTS_REPORT_H_
#define CHALCEDONY_JOB_SPOT_SPOTS_REPORT_H_

#include <filesystem>
#include <vector>

#include "job/run/summary.h"
#include "job/spot/held_spots.h"

namespace chalcedony {

/// A row for each spot. `is_held`: whether there are columns of changes.
void write_spots(const std::filesystem::path& path, const HeldSpots& held,
                 const std::vector<Channel>& channels, bool is_held, bool has_steady);

/// `spots`, and `steady` where there is one.
void report_held(const HeldSpots& held, const std::vector<Channel>& channels, Json& json);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SPOT_SPOTS_REPORT_H_
