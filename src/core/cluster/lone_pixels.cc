#include "core/cluster/lone_pixels.h"

#include <algorithm>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cluster/lone_pixels.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

bool is_lone(const std::uint8_t* above, const std::uint8_t* here, const std::uint8_t* below,
             std::size_t x) {
  const std::uint8_t label = here[x];
  const auto alike = [label](const std::uint8_t* three, bool middle) {
    return three[0] == label || (middle && three[1] == label) || three[2] == label;
  };
  return label != 0 && !alike(above + x - 1, true) && !alike(here + x - 1, false) &&
         !alike(below + x - 1, true);
}

// How many labels of a row differ from all their neighbors, from place 1 to `width`.
std::size_t count_lone(const std::uint8_t* above, const std::uint8_t* here,
                       const std::uint8_t* below, std::size_t width) {
  const hn::CappedTag<std::uint8_t, 32> d;
  std::size_t lone = 0, x = 1;
  for (; x + hn::Lanes(d) <= width + 1; x += hn::Lanes(d)) {
    const auto label = hn::LoadU(d, here + x);
    const auto like = [&](const std::uint8_t* neighbor)
                          HWY_ATTR { return hn::Eq(hn::LoadU(d, neighbor), label); };
    const auto beside = hn::Or(like(here + x - 1), like(here + x + 1));
    const auto higher = hn::Or(hn::Or(like(above + x - 1), like(above + x)), like(above + x + 1));
    const auto lower = hn::Or(hn::Or(like(below + x - 1), like(below + x)), like(below + x + 1));
    const auto counts_not = hn::Eq(label, hn::Zero(d));
    const auto alike = hn::Or(hn::Or(beside, higher), hn::Or(lower, counts_not));
    lone += hn::Lanes(d) - hn::CountTrue(d, alike);
  }
  for (; x <= width; ++x) lone += is_lone(above, here, below, x) ? 1 : 0;
  return lone;
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

HWY_EXPORT(count_lone);

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
  lone_ +=
      HWY_DYNAMIC_DISPATCH(count_lone)(rows_[0].data(), rows_[1].data(), rows_[2].data(), width_);
}

}  // namespace chalcedony
#endif
