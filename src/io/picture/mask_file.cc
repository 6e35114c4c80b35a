#include "io/picture/mask_file.h"
#include "io/picture/open_picture.h"

#include "core/error.h"
#include "io/picture/label_file.h"
#include "io/picture/picture_file.h"

namespace chalcedony {
namespace {

void check_size(const RasterShape& shape, std::uint32_t width, std::uint32_t height,
                const std::string& name) {
  if (shape.width != width || shape.height != height)
    throw InputError("the mask is " + shape.size_text() + ", the picture " +
                         RasterShape{width, height}.size_text(),
                     "give the mask that belongs to this picture", name);
}

void check_is_mask(const PictureFile& file, std::uint32_t width, std::uint32_t height) {
  const std::string name = file.path.string();
  if (file.facts.lossy)
    throw InputError("a lossy picture cannot be a mask, its edges are blurred",
                     "give the mask as PNG or TIFF", name);
  if (!file.facts.legend.empty())
    throw InputError(
        "is a class map",
        "name the classes that count, as in " + name + ":" + file.facts.legend.front().name, name);
  if (file.info.shape.channels != 1 || file.info.shape.sample != SampleType::kU8 ||
      file.facts.layout == "palette")
    throw InputError("is not a mask, which is 8-bit gray", "give a mask written by this program",
                     name);
  check_size(file.info.shape, width, height, name);
}

/// Whether each number is of one of the classes.
std::vector<bool> chosen_numbers(const LabelFile& file, const std::vector<std::string>& classes) {
  std::vector<bool> chosen(kLabels);
  for (const std::string& wanted : classes)
    for (const Label label :
         errors_at(file.path.string(), [&] { return labels_named(file.classes, wanted); }))
      chosen[label] = true;
  return chosen;
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

Mask read_classes_as_mask(const std::filesystem::path& path,
                          const std::vector<std::string>& classes, std::uint32_t width,
                          std::uint32_t height) {
  LabelFile file = open_labels(path, 0);
  check_size({file.rows->shape().width, file.rows->shape().height}, width, height, path.string());
  const std::vector<bool> chosen = chosen_numbers(file, classes);
  LabelRows rows(file);
  Mask mask(width, height);
  std::uint64_t pixel = 0;
  for (std::uint32_t y = 0; y < height; ++y) {
    const Label* const labels = rows.next();
    for (std::uint32_t x = 0; x < width; ++x, ++pixel)
      if (chosen[labels[x]]) mask.set(pixel);
  }
  return mask;
}

}  // namespace chalcedony
