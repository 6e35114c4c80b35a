#include "io/picture/tiff_pages.h"

#include "io/picture/tiff_handle.h"

namespace chalcedony {
namespace {

/// Whether the present directory is of a picture, not of a smaller copy or a mask of one.
bool is_picture(TIFF* tiff) {
  const auto kind = tiff_tag<std::uint32_t>(tiff, TIFFTAG_SUBFILETYPE, 0);
  return (kind & (FILETYPE_REDUCEDIMAGE | FILETYPE_MASK)) == 0;
}

std::vector<std::uint64_t> directories_below(TIFF* tiff) {
  std::uint16_t count = 0;
  const std::uint64_t* places = nullptr;
  if (!TIFFGetField(tiff, TIFFTAG_SUBIFD, &count, &places) || !places) return {};
  return {places, places + count};
}

}  // namespace

std::vector<std::uint64_t> tiff_pages(TIFF* tiff) {
  const std::uint64_t first = TIFFCurrentDirOffset(tiff);
  const std::vector<std::uint64_t> below = directories_below(tiff);
  std::vector<std::uint64_t> pages;
  // A directory that cannot be read ends the list: those before it can.
  do {
    if (is_picture(tiff)) pages.push_back(TIFFCurrentDirOffset(tiff));
  } while (!TIFFLastDirectory(tiff) && TIFFReadDirectory(tiff));
  if (!pages.empty()) return pages;
  for (const std::uint64_t place : below)
    if (TIFFSetSubDirectory(tiff, place) && is_picture(tiff)) pages.push_back(place);
  if (pages.empty()) pages.push_back(first);
  return pages;
}

}  // namespace chalcedony
