// A picture whose channels were written in another order, put right.
#ifndef CHALCEDONY_CORE_PIXEL_REORDERED_ROWS_H_
#define CHALCEDONY_CORE_PIXEL_REORDERED_ROWS_H_

#include <array>
#include <cstring>
#include <memory>
#include <utility>

#include "core/pixel/row_source.h"

namespace chalcedony {

/// Channel c of the rows is channel from[c] of the source; what follows the first three stays.
class ReorderedRows : public RowSource {
 public:
  /// Shape     a source of at least three channels; `from` holds 0, 1 and 2
  ReorderedRows(std::unique_ptr<RowSource> source, const std::array<std::size_t, 3>& from)
      : source_(std::move(source)), from_(from) {}

  const RasterShape& shape() const override { return source_->shape(); }
  void rewind() override { source_->rewind(); }

  void read_rows(std::uint32_t count, std::byte* rows) override {
    source_->read_rows(count, rows);
    const std::size_t sample = bytes_per_sample(shape().sample), pixel = shape().pixel_bytes();
    std::array<std::byte, 3 * sizeof(float)> stored;
    for (std::byte *at = rows, *end = rows + count * shape().row_bytes(); at != end; at += pixel) {
      std::memcpy(stored.data(), at, 3 * sample);
      for (std::size_t c = 0; c < 3; ++c)
        std::memcpy(at + c * sample, stored.data() + from_[c] * sample, sample);
    }
  }

 private:
  std::unique_ptr<RowSource> source_;
  std::array<std::size_t, 3> from_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_REORDERED_ROWS_H_
