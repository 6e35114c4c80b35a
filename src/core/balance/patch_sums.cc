#include "core/balance/patch_sums.h"

#include <algorithm>

namespace chalcedony {

std::array<double, 3> PatchSum::mean() const {
  const auto n = static_cast<double>(pixels);
  return {xyz[0] / n, xyz[1] / n, xyz[2] / n};
}

void PatchSums::add(const Block& block, const ConstPlanes& xyz,
                    const std::vector<SampleRun>& runs) {
  for_each_sample_pixel(
      runs, block.picture_width, block.first_pixel, block.first_pixel + block.size,
      [&](const SampleRun& run, std::uint64_t pixel) {
        const auto i = static_cast<std::size_t>(pixel - block.first_pixel);
        if (!block.counts(i)) return;
        PatchSum& sum = sums_[run.sample_class];
        for (std::size_t c = 0; c < 3; ++c) sum.xyz[c] += double{xyz[c][i]};
        ++sum.pixels;
        const bool full =
            block.color[0][i] >= full_ || block.color[1][i] >= full_ || block.color[2][i] >= full_;
        sum.full += full ? 1 : 0;
      });
}

PatchSums& PatchSums::operator+=(const PatchSums& other) {
  for (std::size_t p = 0; p < sums_.size(); ++p) {
    for (std::size_t c = 0; c < 3; ++c) sums_[p].xyz[c] += other.sums_[p].xyz[c];
    sums_[p].pixels += other.sums_[p].pixels;
    sums_[p].full += other.sums_[p].full;
  }
  return *this;
}

}  // namespace chalcedony
