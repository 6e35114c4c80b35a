// An open TIFF of the TIFF library.
#ifndef CHALCEDONY_IO_PICTURE_TIFF_HANDLE_H_
#define CHALCEDONY_IO_PICTURE_TIFF_HANDLE_H_

#include <tiffio.h>

#include <cstdint>
#include <filesystem>
#include <memory>
#include <string>

namespace chalcedony {

struct CloseTiff {
  void operator()(TIFF* tiff) const { TIFFClose(tiff); }
};

/// Closed at its end.
using TiffHandle = std::unique_ptr<TIFF, CloseTiff>;

/// Opens a file to be read; null when it is none the library reads. `message` must outlive the
/// handle: it holds the library's last words on what went wrong. Its warnings are dropped.
TiffHandle open_tiff_quietly(const std::filesystem::path& path, std::string& message);

/// A field that holds one number, or its default; `otherwise` where it has none.
template <class Number>
Number tiff_tag(TIFF* tiff, std::uint32_t name, Number otherwise) {
  Number value = otherwise;
  return TIFFGetFieldDefaulted(tiff, name, &value) ? value : otherwise;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_TIFF_HANDLE_H_
