#include "io/orientation.h"

#include <cstring>
#include <utility>
#include <vector>

namespace chalcedony {
namespace {

class UprightSource : public RowSource {
 public:
  UprightSource(std::unique_ptr<RowSource> stored, int orientation)
      : stored_(std::move(stored)), shape_(stored_->shape()), orientation_(orientation) {
    if (orientation_ >= 5) std::swap(shape_.width, shape_.height);
  }

  const RasterShape& shape() const override { return shape_; }
  void rewind() override { next_row_ = 0; }
  bool rereads_quickly() const override { return true; }

  void read_rows(std::uint32_t count, std::byte* rows) override {
    if (samples_.empty()) load();
    const std::size_t pixel = shape_.pixel_bytes();
    for (std::uint32_t r = 0; r < count; ++r, ++next_row_)
      for (std::uint32_t x = 0; x < shape_.width; ++x, rows += pixel)
        std::memcpy(rows, stored_pixel(x, next_row_), pixel);
  }

 private:
  void load() {
    const RasterShape& shape = stored_->shape();
    samples_.resize(shape.row_bytes() * shape.height);
    stored_->rewind();
    stored_->read_rows(shape.height, samples_.data());
  }

  /// The stored pixel seen at (x, y).
  const std::byte* stored_pixel(std::uint32_t x, std::uint32_t y) const {
    const std::uint32_t right = shape_.width - 1 - x, below = shape_.height - 1 - y;
    const std::array<std::pair<std::uint32_t, std::uint32_t>, 8> from{{{x, y},
                                                                       {right, y},
                                                                       {right, below},
                                                                       {x, below},
                                                                       {y, x},
                                                                       {y, right},
                                                                       {below, right},
                                                                       {below, x}}};
    const auto [sx, sy] = from[static_cast<std::size_t>(orientation_ - 1)];
    const RasterShape& shape = stored_->shape();
    return samples_.data() + (std::size_t{sy} * shape.width + sx) * shape.pixel_bytes();
  }

  std::unique_ptr<RowSource> stored_;
  RasterShape shape_;
  int orientation_;
  std::uint32_t next_row_ = 0;
  std::vector<std::byte> samples_;
};

}  // namespace

std::unique_ptr<RowSource> turn_upright(std::unique_ptr<RowSource> stored, int orientation) {
  return std::make_unique<UprightSource>(std::move(stored), orientation);
}

}  // namespace chalcedony
