#include "job/histogram/classed_rows.h"

#include <array>
#include <utility>

#include "core/pixel/label.h"

namespace chalcedony {
namespace {

RowSources rows_of_both(CountedPicture& picture, ClassSource& source) {
  RowSources sources;
  sources.push_back(std::move(picture.file.rows));
  sources.push_back(std::move(source.rows));
  return sources;
}

}  // namespace

ClassedRows::ClassedRows(CountedPicture& picture, ClassSource& source)
    : label_type_(source.rows->shape().sample),
      rows_(rows_of_both(picture, source)),
      class_of_(source.class_of) {}

bool ClassedRows::read_classes(const std::byte* row, std::uint32_t x, std::size_t n,
                               std::uint8_t* classes) const {
  std::array<Label, kBlockPixels> labels;
  read_labels(row + rows_.part(1) + x * bytes_per_sample(label_type_), n, label_type_,
              labels.data());
  std::uint8_t some = 0;
  for (std::size_t i = 0; i < n; ++i) {
    classes[i] = class_of_[labels[i]];
    some |= classes[i];
  }
  return some != 0;
}

}  // namespace chalcedony
