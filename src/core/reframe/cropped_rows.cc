#include "core/reframe/cropped_rows.h"

#include <cstring>
#include <utility>

namespace chalcedony {

CroppedRows::CroppedRows(std::unique_ptr<RowSource> source, const PixelRect& rect)
    : source_(std::move(source)), rect_(rect), shape_(source_->shape()), row_(shape_.row_bytes()) {
  shape_.width = rect.width;
  shape_.height = rect.height;
}

void CroppedRows::read_rows(std::uint32_t count, std::byte* rows) {
  if (!at_first_)
    for (std::uint32_t y = 0; y < rect_.y; ++y) source_->read_rows(1, row_.data());
  at_first_ = true;
  for (std::uint32_t r = 0; r < count; ++r, rows += shape_.row_bytes()) {
    source_->read_rows(1, row_.data());
    std::memcpy(rows, row_.data() + rect_.x * shape_.pixel_bytes(), shape_.row_bytes());
  }
}

void CroppedRows::rewind() {
  source_->rewind();
  at_first_ = false;
}

}  // namespace chalcedony
