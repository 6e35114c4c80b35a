#include "core/pixel/band.h"

#include <algorithm>
#include <cstring>

#include "core/error.h"

namespace chalcedony {
namespace {

// Large enough that starting a task costs nothing beside it and a band deflates well on its own;
// small enough that the bands under way stay far below any limit on memory.
constexpr std::uint64_t kBandPixels = 1u << 17;

}  // namespace

const std::byte* Band::row(std::int64_t y) const {
  const std::int64_t inside = std::clamp<std::int64_t>(y, first_held_, first_held_ + held_ - 1);
  return held_rows_ + static_cast<std::size_t>(inside - first_held_) * shape_.row_bytes();
}

std::uint32_t rows_per_band(const RasterShape& shape, std::uint32_t halo) {
  const std::uint64_t wanted = std::max<std::uint64_t>(1, kBandPixels / std::max(1u, shape.width));
  // With a halo, a band of few rows would carry mostly neighborhood.
  const std::uint64_t rows = std::max<std::uint64_t>(wanted, 2 * std::uint64_t{halo});
  return static_cast<std::uint32_t>(std::min<std::uint64_t>(rows, shape.height));
}

BandReader::BandReader(RowSource& source, std::uint32_t halo, const std::atomic<bool>* stop)
    : source_(source),
      shape_(source.shape()),
      halo_(halo),
      band_rows_(rows_per_band(shape_, halo)),
      stop_(stop) {}

Band BandReader::make_band() const {
  Band band;
  const std::size_t rows = std::min(band_rows_ + 2 * halo_, shape_.height);
  band.shape_ = shape_;
  if (!borrows()) band.bytes_.resize(rows * shape_.row_bytes());
  return band;
}

void BandReader::read_next(Band& band) {
  if (stop_ && stop_->load(std::memory_order_relaxed)) throw Interrupted();
  const std::uint32_t rows = std::min(band_rows_, shape_.height - next_row_);
  const std::uint32_t held_end = std::min(shape_.height, next_row_ + rows + halo_);
  band.first_row_ = next_row_;
  band.rows_ = rows;
  band.first_held_ = next_row_ > halo_ ? next_row_ - halo_ : 0;
  band.held_ = held_end - band.first_held_;
  if (borrows()) {
    band.held_rows_ = source_.lend_rows(rows);
  } else {
    read_held_rows(band);
  }
  next_read_ = held_end;
  next_row_ += rows;
  if (halo_ > 0) keep_halo(band);
}

void BandReader::read_held_rows(Band& band) {
  const std::size_t row_bytes = shape_.row_bytes();
  const std::uint32_t held_end = band.first_held_ + band.held_;
  const std::uint32_t carried = next_read_ - band.first_held_;
  if (carried > 0)
    std::memcpy(band.bytes_.data(), kept_.data() + (band.first_held_ - kept_first_) * row_bytes,
                carried * row_bytes);
  if (held_end > next_read_)
    source_.read_rows(held_end - next_read_, band.bytes_.data() + carried * row_bytes);
  band.held_rows_ = band.bytes_.data();
}

void BandReader::keep_halo(const Band& band) {
  const std::uint32_t first = next_row_ > halo_ ? next_row_ - halo_ : 0;
  const std::uint32_t from = std::max(first, band.first_held_);
  kept_first_ = from;
  kept_.assign(band.row(from), band.row(from) + (next_read_ - from) * shape_.row_bytes());
}

}  // namespace chalcedony
