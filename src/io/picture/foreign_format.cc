#include "io/picture/foreign_format.h"

namespace chalcedony {
namespace {

using std::literals::operator""sv;

constexpr std::string_view kSave = "save it as PNG, JPEG, TIFF or WebP";
constexpr std::string_view kDevelop = "develop it into a TIFF of 16 bits";
constexpr std::string_view kDraw = "draw it as a PNG of the size you need";

/// What files of a format hold at a place.
struct Mark {
  std::size_t at;
  std::string_view bytes;
  ForeignFormat format;
};

constexpr Mark kMarks[]{
    // Of ISO base media files the brand follows "ftyp".
    {4, "ftypheic", {"a HEIC picture", kSave}},
    {4, "ftypheix", {"a HEIC picture", kSave}},
    {4, "ftypmif1", {"a HEIC picture", kSave}},
    {4, "ftypavif", {"an AVIF picture", kSave}},
    {4, "ftypcrx", {"a raw file of a camera", kDevelop}},
    {8, "CR\2", {"a raw file of a camera", kDevelop}},
    {0, "IIRO", {"a raw file of a camera", kDevelop}},
    {0, "IIU\0"sv, {"a raw file of a camera", kDevelop}},
    {0, "GIF8", {"a GIF", kSave}},
    {4, "jP  ", {"a JPEG 2000 picture", kSave}},
    {0, "\xff\x4f\xff\x51", {"a JPEG 2000 picture", kSave}},
    {4, "JXL ", {"a JPEG XL picture", kSave}},
    {0, "\xff\x0a", {"a JPEG XL picture", kSave}},
    {0, "v/1\1", {"an OpenEXR picture", kSave}},
    {0, "%PDF", {"a PDF", kDraw}},
    {0, "<svg", {"a drawing (SVG)", kDraw}},
};

}  // namespace

std::optional<ForeignFormat> foreign_format(std::string_view first) {
  const auto holds = [&](std::size_t at, std::string_view bytes) {
    return first.size() >= at && first.substr(at).starts_with(bytes);
  };
  for (const Mark& mark : kMarks)
    if (holds(mark.at, mark.bytes)) return mark.format;
  // Two letters alone may begin any text.
  if (holds(0, "BM") && holds(6, "\0\0\0\0"sv)) return ForeignFormat{"a bitmap (BMP)", kSave};
  return std::nullopt;
}

}  // namespace chalcedony
