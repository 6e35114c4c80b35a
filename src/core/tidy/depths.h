// How deep pixels lie within what they are part of.
#ifndef CHALCEDONY_CORE_TIDY_DEPTHS_H_
#define CHALCEDONY_CORE_TIDY_DEPTHS_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/tidy/element.h"

namespace chalcedony {

/// The squared distance of each pixel to the nearest one that is not `inside`; beyond the picture
/// is nothing that is not. At most kFarAway squared.
///
/// Source    Meijster, Roerdink and Hesselink (2000), A general algorithm for computing distance
///           transforms in linear time
std::vector<std::uint32_t> squared_depths(const Flags& inside, std::size_t width);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_TIDY_DEPTHS_H_
