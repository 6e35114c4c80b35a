#include "io/picture/png_row_filter.h"

#include <algorithm>
#include <cstdlib>
#include <cstring>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "io/picture/png_row_filter.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// n bytes less their predictions; returns the sum of the sizes of what is left, as signed numbers.
std::uint64_t subtract_bytes(const std::uint8_t* bytes, const std::uint8_t* predicted,
                             std::size_t n, std::uint8_t* residues) {
  std::uint64_t sum = 0;
  std::size_t i = 0;
#if HWY_TARGET != HWY_SCALAR
  const hn::ScalableTag<std::uint8_t> d;
  const hn::RebindToSigned<decltype(d)> di;
  const hn::Repartition<std::uint64_t, decltype(d)> d64;
  auto sums = hn::Zero(d64);
  for (; i + hn::Lanes(d) <= n; i += hn::Lanes(d)) {
    const auto residue = hn::Sub(hn::LoadU(d, bytes + i), hn::LoadU(d, predicted + i));
    hn::StoreU(residue, d, residues + i);
    sums = hn::Add(sums, hn::SumsOf8(hn::BitCast(d, hn::Abs(hn::BitCast(di, residue)))));
  }
  sum = hn::GetLane(hn::SumOfLanes(d64, sums));
#endif
  for (; i < n; ++i) {
    residues[i] = static_cast<std::uint8_t>(bytes[i] - predicted[i]);
    sum += static_cast<std::uint64_t>(std::abs(static_cast<std::int8_t>(residues[i])));
  }
  return sum;
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(subtract_bytes);

enum Filter : std::uint8_t { kNone = 0, kSub = 1, kUp = 2 };

}  // namespace

void PngRowFilter::filter(const std::uint8_t* row, const std::uint8_t* above, std::uint8_t* out) {
  if (labels_) {
    out[0] = kNone;
    std::memcpy(out + 1, row, row_bytes_);
    return;
  }
  out[0] = kSub;
  const std::size_t lead = std::min(pixel_bytes_, row_bytes_);
  std::uint64_t left = 0;
  for (std::size_t i = 0; i < lead; ++i) {
    out[1 + i] = row[i];
    left += static_cast<std::uint64_t>(std::abs(static_cast<std::int8_t>(row[i])));
  }
  left += HWY_DYNAMIC_DISPATCH(subtract_bytes)(row + lead, row, row_bytes_ - lead, out + 1 + lead);
  if (!above) return;
  if (HWY_DYNAMIC_DISPATCH(subtract_bytes)(row, above, row_bytes_, trial_.data()) >= left) return;
  out[0] = kUp;
  std::memcpy(out + 1, trial_.data(), row_bytes_);
}

}  // namespace chalcedony
#endif
