// Pictures stored turned or mirrored, put upright.
#ifndef CHALCEDONY_IO_PICTURE_ORIENTATION_H_
#define CHALCEDONY_IO_PICTURE_ORIENTATION_H_

#include <memory>

#include "core/pixel/row_source.h"

namespace chalcedony {

/// Rows of the picture as it is meant to be seen. Holds the whole picture in memory from the
/// first read on.
///
/// Range     orientation 1 to 8
/// Source    Exif 2.32 (CIPA DC-008), 4.6.4, tag Orientation
std::unique_ptr<RowSource> turn_upright(std::unique_ptr<RowSource> stored, int orientation);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_ORIENTATION_H_
