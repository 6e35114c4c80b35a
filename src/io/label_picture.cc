#include "io/label_picture.h"

#include <algorithm>
#include <cstddef>
#include <cstring>

#include "core/error.h"
#include "core/palette/figure_colors.h"
#include "io/label_file.h"
#include "io/picture_writer.h"

namespace chalcedony {
namespace {

LabelGrid read_grid(LabelFile& file) {
  const RasterShape shape = file.rows->shape();
  LabelGrid grid(shape.width, shape.height);
  if (shape.sample == SampleType::kU8) {
    file.rows->read_rows(shape.height, reinterpret_cast<std::byte*>(grid.labels.data()));
    return grid;
  }
  std::vector<std::uint16_t> row(shape.width);
  for (std::uint32_t y = 0; y < shape.height; ++y) {
    file.rows->read_rows(1, reinterpret_cast<std::byte*>(row.data()));
    for (std::uint32_t x = 0; x < shape.width; ++x) {
      if (row[x] > 255)
        throw InputError("has the class number " + std::to_string(row[x]) + ", above 255",
                         "give a class map with up to 255 classes", file.path.string());
      grid.row(y)[x] = static_cast<std::uint8_t>(row[x]);
    }
  }
  return grid;
}

void name_classes(LabelPicture& picture) {
  for (const std::uint8_t label : labels_in(picture.grid)) {
    const bool known = std::any_of(picture.classes.begin(), picture.classes.end(),
                                   [&](const LegendEntry& e) { return e.index == label; });
    if (!known)
      picture.classes.push_back(
          {label, "class " + std::to_string(label), css_hex(class_color(label - 1u))});
  }
  std::sort(picture.classes.begin(), picture.classes.end(),
            [](const LegendEntry& a, const LegendEntry& b) { return a.index < b.index; });
}

}  // namespace

LabelPicture read_label_picture(const std::filesystem::path& path, std::uint64_t max_pixels) {
  LabelFile file = open_labels(path, max_pixels);
  LabelPicture picture{path, false, read_grid(file), file.classes};
  const auto labels = labels_in(picture.grid);
  // Nothing but 255 says that it is a mask; an empty mask and an empty map are the same thing.
  picture.is_mask = file.legend_from == LegendFrom::kNumbers &&
                    (labels.empty() || (labels.size() == 1 && labels[0] == 255));
  if (picture.is_mask) {
    for (std::uint8_t& label : picture.grid.labels) label = label ? 1 : 0;
    picture.classes = {{1, "selected", "#ffffff"}};
  } else {
    name_classes(picture);
  }
  return picture;
}

void write_label_picture(const std::filesystem::path& path, const LabelPicture& picture) {
  PictureSpec spec;
  spec.shape = {picture.grid.width, picture.grid.height, 1, SampleType::kU8};
  spec.labels = true;
  if (!picture.is_mask) spec.legend = picture.classes;
  std::vector<std::byte> samples(picture.grid.labels.size());
  for (std::size_t i = 0; i < samples.size(); ++i)
    samples[i] = static_cast<std::byte>(
        picture.is_mask && picture.grid.labels[i] ? 255 : picture.grid.labels[i]);
  write_picture(path, spec, samples);
}

}  // namespace chalcedony
