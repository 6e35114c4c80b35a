#include "io/mask_file.h"

#include "core/error.h"
#include "io/picture_file.h"

namespace chalcedony {
namespace {

void check_is_mask(const PictureFile& file, std::uint32_t width, std::uint32_t height) {
  const std::string name = file.path.string();
  if (file.facts.lossy)
    throw InputError("a lossy picture cannot be a mask, its edges are blurred",
                     "give the mask as PNG or TIFF", name);
  if (file.info.shape.channels != 1 || file.info.shape.sample != SampleType::kU8 ||
      file.facts.layout == "palette")
    throw InputError("is not a mask, which is 8-bit gray", "give a mask written by this program",
                     name);
  const RasterShape& shape = file.info.shape;
  if (shape.width != width || shape.height != height)
    throw InputError("the mask is " + shape.size_text() + ", the picture " +
                         RasterShape{width, height}.size_text(),
                     "give the mask that belongs to this picture", name);
}

}  // namespace

Mask read_mask(const std::filesystem::path& path, std::uint32_t width, std::uint32_t height,
               std::vector<std::string>& warnings) {
  PictureFile file = open_picture(path);
  check_is_mask(file, width, height);
  Mask mask(width, height);
  std::vector<std::byte> row(width);
  bool other_values = false;
  std::uint64_t pixel = 0;
  for (std::uint32_t y = 0; y < height; ++y) {
    file.rows->read_rows(1, row.data());
    for (const std::byte value : row) {
      const auto v = std::to_integer<unsigned>(value);
      other_values |= v != 0 && v != 255;
      if (v >= 128) mask.set(pixel);
      ++pixel;
    }
  }
  if (other_values)
    warnings.push_back(path.string() +
                       ": holds other values than 0 and 255; 128 and more count as selected");
  return mask;
}

}  // namespace chalcedony
