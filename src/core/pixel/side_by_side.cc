#include "core/pixel/side_by_side.h"

#include <algorithm>

namespace chalcedony {

SideBySide::SideBySide(std::vector<std::unique_ptr<RowSource>> pictures)
    : pictures_(std::move(pictures)), shape_(pictures_.front()->shape()) {
  narrow_.resize(shape_.width);
  for (const auto& picture : pictures_)
    if (picture->shape().sample == SampleType::kU16) shape_.sample = SampleType::kU16;
  shape_.width *= static_cast<std::uint32_t>(pictures_.size());
}

void SideBySide::read_rows(std::uint32_t count, std::byte* rows) {
  for (std::uint32_t r = 0; r < count; ++r)
    for (const auto& picture : pictures_) {
      if (picture->shape().sample == shape_.sample) {
        picture->read_rows(1, rows);
      } else {
        read_widened(*picture, rows);
      }
      rows += shape_.row_bytes() / pictures_.size();
    }
}

void SideBySide::read_widened(RowSource& picture, std::byte* row) {
  picture.read_rows(1, narrow_.data());
  auto* wide = reinterpret_cast<std::uint16_t*>(row);
  std::transform(narrow_.begin(), narrow_.end(), wide,
                 [](std::byte b) { return std::to_integer<std::uint16_t>(b); });
}

void SideBySide::rewind() {
  for (const auto& picture : pictures_) picture->rewind();
}

}  // namespace chalcedony
