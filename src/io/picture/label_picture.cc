#include "io/picture/label_picture.h"
#include "io/picture/create_picture.h"
#include "io/picture/picture_file.h"

#include <algorithm>
#include <cstddef>
#include <utility>

#include "core/error.h"
#include "core/palette/figure_colors.h"

namespace chalcedony {
namespace {

constexpr Label kMaskOn = 255;

LabelGrid read_grid(LabelFile& file) {
  const RasterShape shape = file.rows->shape();
  LabelGrid grid(shape.width, shape.height);
  LabelRows rows(file);
  for (std::uint32_t y = 0; y < shape.height; ++y)
    std::copy_n(rows.next(), shape.width, grid.row(y));
  return grid;
}

bool says_mask(const LabelFile& file, const std::vector<Label>& labels) {
  // An empty mask and an empty map are the same thing.
  return file.legend_from == LegendFrom::kNumbers &&
         (labels.empty() || (labels.size() == 1 && labels[0] == kMaskOn));
}

std::vector<LegendEntry> named_classes(std::vector<LegendEntry> classes,
                                       const std::vector<Label>& labels) {
  for (const Label label : labels)
    if (std::none_of(classes.begin(), classes.end(),
                     [&](const LegendEntry& e) { return e.index == label; }))
      classes.push_back(
          {label, "class " + std::to_string(label), css_hex(class_color(label - 1u))});
  std::sort(classes.begin(), classes.end(),
            [](const LegendEntry& a, const LegendEntry& b) { return a.index < b.index; });
  return classes;
}

}  // namespace

FoundClasses classes_found(const LabelFile& file, const std::vector<Label>& labels) {
  if (says_mask(file, labels)) return {true, {{kMaskOn, std::string(kSelected), "#ffffff"}}};
  return {false, named_classes(file.classes, labels)};
}

bool holds_labels(PictureFile& picture) {
  if (!picture.facts.legend.empty()) return true;
  const RasterShape& shape = picture.info.shape;
  if (shape.channels != 1 || shape.sample != SampleType::kU8 || picture.facts.lossy) return false;
  std::vector<std::byte> row(shape.row_bytes());
  const auto is_on_or_off = [](std::byte b) { return b == std::byte{0} || b == std::byte{255}; };
  bool mask = true;
  for (std::uint32_t y = 0; mask && y < shape.height; ++y) {
    picture.rows->read_rows(1, row.data());
    mask = std::all_of(row.begin(), row.end(), is_on_or_off);
  }
  picture.rows->rewind();
  return mask;
}

LabelPicture read_label_picture(const std::filesystem::path& path, std::uint64_t max_pixels) {
  LabelFile file = open_labels(path, max_pixels);
  return read_label_picture(file);
}

LabelPicture read_label_picture(LabelFile& file) {
  LabelGrid grid = read_grid(file);
  FoundClasses found = classes_found(file, labels_in(grid));
  if (found.is_mask) {
    for (Label& label : grid.labels) label = label ? 1 : 0;
    found.classes[0].index = 1;
  }
  return {file.path, found.is_mask, std::move(grid), std::move(found.classes), file.carried};
}

void write_label_picture(const std::filesystem::path& path, const LabelPicture& picture) {
  const RasterShape size{picture.grid.width, picture.grid.height};
  PictureSpec spec = picture.is_mask ? label_spec(size) : class_map_spec(size, picture.classes);
  spec.carried = picture.carried;
  const std::vector<Label>& labels = picture.grid.labels;
  std::vector<std::byte> samples(labels.size() * spec.shape.pixel_bytes());
  store_labels(labels.data(), labels.size(), spec.shape.sample, samples.data());
  if (picture.is_mask)
    for (std::byte& on : samples) on = on == std::byte{0} ? on : std::byte{255};
  write_picture(path, spec, samples);
}

}  // namespace chalcedony
