#include "core/pixel/kept_rows.h"

#include <cstring>
#include <utility>

namespace chalcedony {

KeptRows::KeptRows(std::unique_ptr<RowSource> source, std::size_t most_bytes)
    : source_(std::move(source)), keeps_(all_bytes() <= most_bytes) {
  if (keeps_) kept_.emplace(all_bytes());
}

void KeptRows::read_rows(std::uint32_t count, std::byte* rows) {
  const std::size_t bytes = count * shape().row_bytes();
  if (!keeps_) {
    source_->read_rows(count, rows);
    return;
  }
  if (held_ == 0)
    makes_pages_ = std::jthread([this](const std::stop_token& stop) { kept_->make_pages(stop); });
  if (next_ == held_) {
    source_->read_rows(count, rows);
    std::memcpy(kept_->data() + next_, rows, bytes);
    held_ += bytes;
  } else {
    std::memcpy(rows, kept_->data() + next_, bytes);
  }
  next_ += bytes;
}

void KeptRows::rewind() {
  next_ = 0;
  if (keeps_ && held_ == all_bytes()) return;
  held_ = 0;
  source_->rewind();
}

}  // namespace chalcedony
