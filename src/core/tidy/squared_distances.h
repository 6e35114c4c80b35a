// Distances in a picture, squared: a whole distance transform.
#ifndef CHALCEDONY_CORE_TIDY_SQUARED_DISTANCES_H_
#define CHALCEDONY_CORE_TIDY_SQUARED_DISTANCES_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/tidy/element.h"

namespace chalcedony {

/// The squared distance of each pixel to the nearest one that is on; at most kFarAway squared,
/// which is also that where none is.
///
/// Source    Meijster, Roerdink and Hesselink (2000), A general algorithm for computing distance
///           transforms in linear time
std::vector<std::uint32_t> squared_distances(const Flags& on, std::size_t width);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_TIDY_SQUARED_DISTANCES_H_
