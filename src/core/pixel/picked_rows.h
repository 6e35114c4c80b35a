// Three channels of a picture that has more.
#ifndef CHALCEDONY_CORE_PIXEL_PICKED_ROWS_H_
#define CHALCEDONY_CORE_PIXEL_PICKED_ROWS_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <cstring>
#include <memory>
#include <utility>
#include <vector>

#include "core/pixel/row_source.h"

namespace chalcedony {

/// Channel c of the rows is channel from[c] of the source; all others are left out.
class PickedRows : public RowSource {
 public:
  PickedRows(std::unique_ptr<RowSource> source, const std::array<std::uint32_t, 3>& from)
      : source_(std::move(source)), from_(from), shape_(source_->shape()) {
    shape_.channels = 3;
  }

  const RasterShape& shape() const override { return shape_; }
  void rewind() override { source_->rewind(); }

  void read_rows(std::uint32_t count, std::byte* rows) override {
    const RasterShape& all = source_->shape();
    stored_.resize(count * all.row_bytes());
    source_->read_rows(count, stored_.data());
    const std::size_t sample = bytes_per_sample(all.sample), pixel = all.pixel_bytes();
    for (std::size_t at = 0; at < stored_.size(); at += pixel)
      for (const std::uint32_t channel : from_) {
        std::memcpy(rows, stored_.data() + at + channel * sample, sample);
        rows += sample;
      }
  }

 private:
  std::unique_ptr<RowSource> source_;
  std::array<std::uint32_t, 3> from_;
  RasterShape shape_;
  std::vector<std::byte> stored_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_PICKED_ROWS_H_
