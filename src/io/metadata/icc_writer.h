// Color profiles for pictures that are written.
#ifndef CHALCEDONY_IO_METADATA_ICC_WRITER_H_
#define CHALCEDONY_IO_METADATA_ICC_WRITER_H_

#include <cstddef>
#include <vector>

#include "core/color/space.h"

namespace chalcedony {

/// A display profile of an RGB space: its primaries adapted to D50 and its curve as a table, both
/// taken from the conversions of this program.
///
/// Source    ICC.1:2010, clauses 7 to 10
std::vector<std::byte> icc_profile_of(const Space& space);

/// The same of grays: a curve alone. `space` is one of grays, or an RGB space whose grays are
/// meant.
std::vector<std::byte> gray_icc_profile_of(const Space& space);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_METADATA_ICC_WRITER_H_
