#include "core/pixel/kept_rows.h"

#include <algorithm>
#include <cstring>
#include <utility>

namespace chalcedony {
namespace {

// Large pages are of this size. More of them ahead would only take a processor from the first
// bands.
constexpr std::size_t kPages = std::size_t{1} << 21;
constexpr std::size_t kAhead = 2 * kPages;

}  // namespace

KeptRows::KeptRows(std::unique_ptr<RowSource> source, std::size_t most_bytes)
    : source_(std::move(source)), keeps_(all_bytes() <= most_bytes) {
  if (keeps_) kept_.emplace(all_bytes());
}

void KeptRows::read_rows(std::uint32_t count, std::byte* rows) {
  if (const std::byte* const lent = lend_rows(count)) {
    std::memcpy(rows, lent, count * shape().row_bytes());
  } else {
    source_->read_rows(count, rows);
  }
}

const std::byte* KeptRows::lend_rows(std::uint32_t count) {
  if (!keeps_) return nullptr;
  if (held_ == 0) begin_to_keep();
  std::byte* const rows = kept_->data() + next_;
  const std::size_t bytes = count * shape().row_bytes();
  if (next_ == held_) {
    source_->read_rows(count, rows);
    held_ += bytes;
    wanted_ = held_ + kAhead;
    wanted_.notify_one();
  }
  next_ += bytes;
  return rows;
}

void KeptRows::rewind() {
  next_ = 0;
  if (keeps_ && held_ == all_bytes()) return;
  held_ = 0;
  source_->rewind();
}

void KeptRows::begin_to_keep() {
  makes_pages_ = {};  // of a pass that was left early
  wanted_ = kAhead;
  makes_pages_ = std::jthread([this](const std::stop_token& stop) { make_pages(stop); });
}

void KeptRows::make_pages(const std::stop_token& stop) {
  const std::stop_callback end(stop, [this] {
    wanted_ = all_bytes() + kAhead;
    wanted_.notify_one();
  });
  const std::size_t all = all_bytes();
  for (std::size_t at = 0; at < all && !stop.stop_requested(); at += kPages) {
    for (std::size_t wanted = wanted_; wanted <= at; wanted = wanted_) wanted_.wait(wanted);
    kept_->make_pages(at, std::min(kPages, all - at));
  }
}

}  // namespace chalcedony
