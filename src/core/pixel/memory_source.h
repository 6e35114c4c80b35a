// A picture held in memory, read like any other.
#ifndef CHALCEDONY_CORE_PIXEL_MEMORY_SOURCE_H_
#define CHALCEDONY_CORE_PIXEL_MEMORY_SOURCE_H_

#include <cstring>
#include <utility>
#include <vector>

#include "core/pixel/row_source.h"

namespace chalcedony {

class MemorySource : public RowSource {
 public:
  MemorySource(RasterShape shape, std::vector<std::byte> samples)
      : shape_(shape), samples_(std::move(samples)) {}

  const RasterShape& shape() const override { return shape_; }
  void read_rows(std::uint32_t count, std::byte* rows) override {
    std::memcpy(rows, lend_rows(count), count * shape_.row_bytes());
  }
  const std::byte* lend_rows(std::uint32_t count) override {
    const std::byte* const rows = samples_.data() + next_row_ * shape_.row_bytes();
    next_row_ += count;
    return rows;
  }
  void rewind() override { next_row_ = 0; }
  bool lends() const override { return true; }
  bool rereads_quickly() const override { return true; }

 private:
  RasterShape shape_;
  std::vector<std::byte> samples_;
  std::size_t next_row_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_MEMORY_SOURCE_H_
