// What `spots` says of a picture: a table and a part of the summary.
#ifndef CHALCEDONY_JOB_SPOT_SPOTS_REPORT_H_
#define CHALCEDONY_JOB_SPOT_SPOTS_REPORT_H_

#include <filesystem>
#include <vector>

#include "job/run/summary.h"
#include "job/spot/held_spots.h"

namespace chalcedony {

/// Which columns a table has beside those of the colors.
struct SpotColumns {
  std::vector<Channel> channels;  // with their figures
  bool changes = false, steady = false, tolerance = false;
};

/// A row for each spot.
void write_spots(const std::filesystem::path& path, const HeldSpots& held,
                 const SpotColumns& columns);

/// `spots`, and `steady` where there is one.
void report_held(const HeldSpots& held, const std::vector<Channel>& channels, Json& json);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SPOT_SPOTS_REPORT_H_
