// Of the places that are suggested in several pictures, those to check first.
#ifndef CHALCEDONY_JOB_MAP_PLACES_TO_CHECK_H_
#define CHALCEDONY_JOB_MAP_PLACES_TO_CHECK_H_

#include <cstddef>
#include <filesystem>
#include <vector>

#include "figure/plot/plot.h"
#include "job/map/class_shares.h"
#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

/// At most `most` of the places in the summaries of pictures, as SuggestedSamples reports them, in
/// the order of suggested.csv. Each bears its `file`, and its `pixels` and `percent` are those of
/// all pictures that it stands for.
Json places_to_check(const Json& pictures, std::size_t most);

/// A close-up of each. The pictures are read again; one that cannot be is a warning, and its places
/// are left out.
void add_places_to_check(Plot& plot, const std::filesystem::path& path, const Json& places,
                         std::size_t pictures, const std::vector<MapClass>& classes,
                         const SharedOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_MAP_PLACES_TO_CHECK_H_
