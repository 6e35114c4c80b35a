// One pass over a picture that holds groupings against it: maps, recolored pictures, lone pixels.
#ifndef CHALCEDONY_JOB_CLUSTER_CLUSTER_MAPS_H_
#define CHALCEDONY_JOB_CLUSTER_CLUSTER_MAPS_H_

#include <cstdint>
#include <filesystem>
#include <optional>
#include <vector>

#include "core/pixel/thumbnail.h"
#include "job/cluster/group_lookup.h"
#include "job/cluster/grouping.h"
#include "job/picture/inputs.h"

namespace chalcedony {

/// Which files to write; empty paths are not wanted.
struct ClusterMapFiles {
  std::filesystem::path classes;
  std::filesystem::path recolored;
  std::filesystem::path certainty;                   // probability of the class, 0-1 as 0-255
  std::vector<std::filesystem::path> probabilities;  // one for each class
  bool probabilities_as_float = false;               // else 16 bits
};

struct ClusterMaps {
  Excluded excluded;
  std::uint64_t clipped = 0;
  std::vector<std::uint64_t> counts;   // of the chosen grouping's classes, unclassified first
  std::vector<std::uint64_t> lone;     // lone pixels of each grouping
  std::optional<Thumbnail> picture;    // when previews are wanted
  std::optional<Thumbnail> recolored;  // by the chosen grouping
  std::vector<Thumbnail> choices;      // by every grouping, when there are several
};

/// Draws the pictures of one grouping among several, and counts for all of them. `lookup` is of
/// these groupings and of the colors they were found in; the picture is one of theirs.
///
/// Errors    InputError, OutputError; no file is left then
ClusterMaps map_clusters(CountedPicture& picture, const GroupLookup& lookup,
                         const std::vector<Grouping>& groupings, std::size_t chosen,
                         const ClusterMapFiles& files, bool previews, const SharedOptions& options,
                         const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CLUSTER_CLUSTER_MAPS_H_
