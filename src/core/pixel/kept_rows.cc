#include "core/pixel/kept_rows.h"

#include <cstring>
#include <utility>

namespace chalcedony {

KeptRows::KeptRows(std::unique_ptr<RowSource> source, std::size_t most_bytes)
    : source_(std::move(source)),
      keeps_(shape().row_bytes() * std::size_t{shape().height} <= most_bytes) {
  if (keeps_) kept_.reserve(shape().row_bytes() * std::size_t{shape().height});
}

void KeptRows::read_rows(std::uint32_t count, std::byte* rows) {
  const std::size_t bytes = count * shape().row_bytes();
  if (!keeps_) {
    source_->read_rows(count, rows);
    return;
  }
  if (next_ == kept_.size()) {
    source_->read_rows(count, rows);
    kept_.insert(kept_.end(), rows, rows + bytes);
  } else {
    std::memcpy(rows, kept_.data() + next_, bytes);
  }
  next_ += bytes;
}

void KeptRows::rewind() {
  next_ = 0;
  if (keeps_ && kept_.size() == shape().row_bytes() * std::size_t{shape().height}) return;
  kept_.clear();
  source_->rewind();
}

}  // namespace chalcedony
