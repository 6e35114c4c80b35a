// The pictures that a TIFF holds, one behind the other.
#ifndef CHALCEDONY_IO_PICTURE_TIFF_PAGES_H_
#define CHALCEDONY_IO_PICTURE_TIFF_PAGES_H_

#include <tiffio.h>

#include <cstdint>
#include <vector>

namespace chalcedony {

/// Where the directories of its pictures begin in the file, in order: those that are no smaller
/// copy of another and no mask of one. Where the file begins with such a copy alone, as files of
/// cameras do, the pictures that it says lie below it; a copy of nothing is a picture. There is
/// always one. Leaves the handle at any of the directories.
///
/// Source    TIFF 6.0, NewSubfileType (p. 36); TIFF Technical Note 1, SubIFDs
std::vector<std::uint64_t> tiff_pages(TIFF* tiff);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_TIFF_PAGES_H_
