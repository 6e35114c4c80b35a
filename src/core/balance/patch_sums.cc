#include "core/balance/patch_sums.h"

#include <algorithm>
#include <cmath>

namespace chalcedony {

double PatchSum::mean(std::size_t plane) const { return sums[plane] / static_cast<double>(pixels); }

double PatchSum::variance(std::size_t plane) const {
  const double m = mean(plane);
  return std::max(0.0, squares[plane] / static_cast<double>(pixels) - m * m);
}

bool PatchSums::is_full(const Block& block, std::size_t i) const {
  return std::isfinite(full_) &&
         (block.color[0][i] >= full_ || block.color[1][i] >= full_ || block.color[2][i] >= full_);
}

void PatchSums::add(const Block& block, std::span<const float* const> planes,
                    const std::vector<SampleRun>& runs) {
  for_each_sample_pixel(runs, block.picture_width, block.first_pixel,
                        block.first_pixel + block.size,
                        [&](const SampleRun& run, std::uint64_t pixel) {
                          const auto i = static_cast<std::size_t>(pixel - block.first_pixel);
                          if (!block.counts(i)) return;
                          PatchSum& sum = sums_[run.sample_class];
                          for (std::size_t c = 0; c < planes.size(); ++c) {
                            const auto value = double{planes[c][i]};
                            sum.sums[c] += value;
                            sum.squares[c] += value * value;
                          }
                          ++sum.pixels;
                          sum.full += is_full(block, i) ? 1 : 0;
                        });
}

PatchSums& PatchSums::operator+=(const PatchSums& other) {
  for (std::size_t p = 0; p < sums_.size(); ++p) {
    for (std::size_t c = 0; c < PatchSum::kMostPlanes; ++c) {
      sums_[p].sums[c] += other.sums_[p].sums[c];
      sums_[p].squares[c] += other.sums_[p].squares[c];
    }
    sums_[p].pixels += other.sums_[p].pixels;
    sums_[p].full += other.sums_[p].full;
  }
  return *this;
}

}  // namespace chalcedony
