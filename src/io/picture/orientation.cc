#include "io/picture/orientation.h"

#include <cstddef>
#include <cstring>
#include <optional>
#include <utility>

#include "core/pixel/zeroed_array.h"

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
    if (!samples_) load();
    for (std::uint32_t r = 0; r < count; ++r, ++next_row_, rows += shape_.row_bytes())
      copy_row(next_row_, rows);
  }

 private:
  void load() {
    const RasterShape& shape = stored_->shape();
    ZeroedArray<std::byte> samples(shape.row_bytes() * shape.height);
    stored_->rewind();
    stored_->read_rows(shape.height, samples.data());
    samples_.emplace(std::move(samples));
  }

  /// The pixels of an upright row lie at even steps among the stored ones.
  void copy_row(std::uint32_t y, std::byte* to) const {
    const std::byte* const from = stored_pixel(0, y);
    const std::ptrdiff_t step = shape_.width > 1 ? stored_pixel(1, y) - from : 0;
    switch (shape_.pixel_bytes()) {
      case 1:
        return copy_pixels<1>(from, step, to);
      case 3:
        return copy_pixels<3>(from, step, to);
      case 4:
        return copy_pixels<4>(from, step, to);
      case 6:
        return copy_pixels<6>(from, step, to);
      default:
        for (std::uint32_t x = 0; x < shape_.width; ++x, to += shape_.pixel_bytes())
          std::memcpy(to, from + x * step, shape_.pixel_bytes());
    }
  }

  template <std::size_t kBytes>
  void copy_pixels(const std::byte* from, std::ptrdiff_t step, std::byte* to) const {
    for (std::uint32_t x = 0; x < shape_.width; ++x, to += kBytes)
      std::memcpy(to, from + x * step, kBytes);
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
    return samples_->data() + (std::size_t{sy} * shape.width + sx) * shape.pixel_bytes();
  }

  std::unique_ptr<RowSource> stored_;
  RasterShape shape_;
  int orientation_;
  std::uint32_t next_row_ = 0;
  std::optional<ZeroedArray<std::byte>> samples_;  // in large pages, as columns cross many rows
};

}  // namespace

std::unique_ptr<RowSource> turn_upright(std::unique_ptr<RowSource> stored, int orientation) {
  return std::make_unique<UprightSource>(std::move(stored), orientation);
}

}  // namespace chalcedony
