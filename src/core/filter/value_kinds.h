// What kind of values a tile holds.
#ifndef CHALCEDONY_CORE_FILTER_VALUE_KINDS_H_
#define CHALCEDONY_CORE_FILTER_VALUE_KINDS_H_

#include "core/filter/tile.h"

namespace chalcedony {

struct ValueKinds {
  bool nan = false;     // some are NaN
  bool others = false;  // some are neither NaN nor an 8-bit code
};

/// Looks no further once both are there.
ValueKinds kinds_of(const Tile& tile);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_VALUE_KINDS_H_
