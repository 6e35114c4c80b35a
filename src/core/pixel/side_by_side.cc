#include "core/pixel/side_by_side.h"

#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>

#include <algorithm>

namespace chalcedony {

SideBySide::SideBySide(std::vector<std::unique_ptr<RowSource>> pictures)
    : pictures_(std::move(pictures)), shape_(pictures_.front()->shape()) {
  for (const auto& picture : pictures_)
    if (picture->shape().sample == SampleType::kU16) shape_.sample = SampleType::kU16;
  part_bytes_ = shape_.row_bytes();
  shape_.width *= static_cast<std::uint32_t>(pictures_.size());
}

void SideBySide::read_rows(std::uint32_t count, std::byte* rows) {
  // Isolated, so that a thread that waits for the other decoders does not start on a band instead.
  tbb::this_task_arena::isolate([&] {
    tbb::parallel_for(std::size_t{0}, pictures_.size(), [&](std::size_t p) {
      read_part(*pictures_[p], count, rows + p * part_bytes_);
    });
  });
}

void SideBySide::read_part(RowSource& picture, std::uint32_t count, std::byte* rows) const {
  if (picture.shape().sample == shape_.sample) {
    for (std::uint32_t r = 0; r < count; ++r) picture.read_rows(1, rows + r * shape_.row_bytes());
    return;
  }
  std::vector<std::byte> narrow(picture.shape().width);
  for (std::uint32_t r = 0; r < count; ++r) {
    picture.read_rows(1, narrow.data());
    auto* wide = reinterpret_cast<std::uint16_t*>(rows + r * shape_.row_bytes());
    std::transform(narrow.begin(), narrow.end(), wide,
                   [](std::byte b) { return std::to_integer<std::uint16_t>(b); });
  }
}

void SideBySide::rewind() {
  for (const auto& picture : pictures_) picture->rewind();
}

}  // namespace chalcedony
