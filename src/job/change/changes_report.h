// What became of the classes of a place, as tables and for summaries.
#ifndef CHALCEDONY_JOB_CHANGE_CHANGES_REPORT_H_
#define CHALCEDONY_JOB_CHANGE_CHANGES_REPORT_H_

#include <cstddef>
#include <filesystem>
#include <utility>
#include <vector>

#include "job/change/timed_maps.h"
#include "job/picture/pixel_size.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Two of the maps: what was, and what is.
using MapStep = std::pair<std::size_t, std::size_t>;

/// From each map to the next one, and of more than two from the first to the last.
std::vector<MapStep> steps_of(std::size_t maps);

/// The fields of a place (docs/summaries.md): its maps with their classes, its steps, and of more
/// than two maps the most frequent histories of pixels that changed, at most 100.
Json place_json(const TimedMaps& maps, const PixelSize& size);

/// Errors    OutputError
void write_changes(const std::filesystem::path& path, const TimedMaps& maps, const PixelSize& size);
void write_gains(const std::filesystem::path& path, const TimedMaps& maps, const PixelSize& size);
void write_histories(const std::filesystem::path& path, const TimedMaps& maps,
                     const PixelSize& size);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CHANGE_CHANGES_REPORT_H_
