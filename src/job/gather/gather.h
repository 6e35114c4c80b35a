// Shards of a run put back together, so that the folder is the one that a single run would have
// made.
#ifndef CHALCEDONY_JOB_GATHER_GATHER_H_
#define CHALCEDONY_JOB_GATHER_GATHER_H_

#include <filesystem>
#include <vector>

#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Copies what the shards of every run in `folders` wrote into `output`, joins their tables and
/// their journals, and writes how.json: byte by byte what one run into `output` leaves, asked for
/// from the same place.
///
/// Errors    InputError when a folder holds no run of a shard, a shard is missing or there twice,
///           or shards were asked for differently; OutputError
Json gather_shards(const std::vector<std::filesystem::path>& folders,
                   const std::filesystem::path& output, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_GATHER_GATHER_H_
