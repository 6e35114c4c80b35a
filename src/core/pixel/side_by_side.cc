#include "core/pixel/side_by_side.h"

#include <algorithm>

#include "core/pixel/isolated_loop.h"
#include "core/pixel/label.h"

namespace chalcedony {
namespace {

/// 8-bit labels as 16-bit ones.
class WideLabels : public RowSource {
 public:
  explicit WideLabels(std::unique_ptr<RowSource> narrow)
      : narrow_(std::move(narrow)), shape_(narrow_->shape()), row_(shape_.width) {
    shape_.sample = SampleType::kU16;
  }

  const RasterShape& shape() const override { return shape_; }
  void rewind() override { narrow_->rewind(); }
  void read_rows(std::uint32_t count, std::byte* rows) override {
    auto* wide = reinterpret_cast<Label*>(rows);
    for (std::uint32_t r = 0; r < count; ++r, wide += shape_.width) {
      narrow_->read_rows(1, row_.data());
      read_labels(row_.data(), row_.size(), SampleType::kU8, wide);
    }
  }

 private:
  std::unique_ptr<RowSource> narrow_;
  RasterShape shape_;
  std::vector<std::byte> row_;
};

}  // namespace

SideBySide::SideBySide(RowSources pictures)
    : pictures_(std::move(pictures)), shape_(pictures_.front()->shape()) {
  shape_.channels = 0;
  shape_.sample = SampleType::kU8;
  for (const auto& picture : pictures_) {
    parts_.push_back(shape_.row_bytes());
    shape_.channels += static_cast<std::uint32_t>(picture->shape().pixel_bytes());
  }
}

std::unique_ptr<SideBySide> SideBySide::of_labels(RowSources pictures) {
  const auto is_wide = [](const auto& p) { return p->shape().sample == SampleType::kU16; };
  const bool wide = std::any_of(pictures.begin(), pictures.end(), is_wide);
  for (auto& picture : pictures)
    if (wide && !is_wide(picture)) picture = std::make_unique<WideLabels>(std::move(picture));
  RasterShape shape = pictures.front()->shape();
  shape.width *= static_cast<std::uint32_t>(pictures.size());
  auto labels = std::make_unique<SideBySide>(std::move(pictures));
  labels->shape_ = shape;
  return labels;
}

void SideBySide::read_rows(std::uint32_t count, std::byte* rows) {
  isolated_loop(pictures_.size(), [&](std::size_t p) {
    for (std::uint32_t r = 0; r < count; ++r)
      pictures_[p]->read_rows(1, rows + r * shape_.row_bytes() + parts_[p]);
  });
}

void SideBySide::rewind() {
  for (const auto& picture : pictures_) picture->rewind();
}

}  // namespace chalcedony
