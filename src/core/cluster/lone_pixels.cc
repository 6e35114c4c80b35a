#include "core/cluster/lone_pixels.h"

#include <algorithm>

namespace chalcedony {

LonePixels::LonePixels(std::uint32_t width) : width_(width) {
  for (auto& row : rows_) row.assign(width_ + 2, 0);
}

void LonePixels::add_rows(const std::uint8_t* labels, std::size_t rows) {
  for (std::size_t y = 0; y < rows; ++y) push(labels + y * width_);
}

std::uint64_t LonePixels::finish() {
  const std::vector<std::uint8_t> nothing(width_, 0);
  push(nothing.data());
  return lone_;
}

/// The middle row has both neighbors once a row has come in below it.
void LonePixels::push(const std::uint8_t* row) {
  rows_[0].swap(rows_[1]);
  rows_[1].swap(rows_[2]);
  std::copy_n(row, width_, rows_[2].begin() + 1);
  count_middle();
}

void LonePixels::count_middle() {
  const std::uint8_t *above = rows_[0].data(), *here = rows_[1].data(), *below = rows_[2].data();
  std::uint32_t lone = 0;
  // Without branches, so that the compiler makes vectors of it.
  for (std::size_t x = 1; x <= width_; ++x) {
    const std::uint8_t label = here[x];
    const unsigned alike = (label == 0) | (above[x - 1] == label) | (above[x] == label) |
                           (above[x + 1] == label) | (here[x - 1] == label) |
                           (here[x + 1] == label) | (below[x - 1] == label) | (below[x] == label) |
                           (below[x + 1] == label);
    lone += 1 - alike;
  }
  lone_ += lone;
}

}  // namespace chalcedony
