// What the classes of a map take of regions, for the terminal.
#ifndef CHALCEDONY_CLI_TEXT_MAP_IN_REGIONS_TEXT_H_
#define CHALCEDONY_CLI_TEXT_MAP_IN_REGIONS_TEXT_H_

#include <iosfwd>

#include "job/run/summary.h"

namespace chalcedony::cli {

/// Of a picture that measure tells of: where each class of regions has one region, a row for each
/// with a column for each class of the map, else a row for each two of them. Nothing where no map
/// was read.
void print_map_in_regions(const Json& picture, std::ostream& out);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TEXT_MAP_IN_REGIONS_TEXT_H_
