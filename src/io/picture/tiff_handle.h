// An open TIFF of the TIFF library.
#ifndef CHALCEDONY_IO_PICTURE_TIFF_HANDLE_H_
#define CHALCEDONY_IO_PICTURE_TIFF_HANDLE_H_

#include <tiffio.h>

#include <memory>

namespace chalcedony {

struct CloseTiff {
  void operator()(TIFF* tiff) const { TIFFClose(tiff); }
};

/// Closed at its end.
using TiffHandle = std::unique_ptr<TIFF, CloseTiff>;

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_TIFF_HANDLE_H_
