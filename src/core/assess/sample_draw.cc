#include "core/assess/sample_draw.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

#include "core/pixel/pixel_hash.h"

namespace chalcedony {
namespace {

constexpr std::uint64_t kAll = std::numeric_limits<std::uint64_t>::max();

/// A hash below which about `wanted` of `pixels` lie, and six standard deviations more.
std::uint64_t limit_for(std::uint64_t wanted, std::uint64_t pixels) {
  if (wanted == 0) return 0;
  const double enough =
      static_cast<double>(wanted) + 6 * std::sqrt(static_cast<double>(wanted)) + 20;
  const double share = enough / static_cast<double>(pixels);
  return share >= 1 ? kAll : static_cast<std::uint64_t>(share * 0x1p64);
}

}  // namespace

std::vector<std::uint64_t> equal_allocation(std::uint64_t total,
                                            const std::vector<std::uint64_t>& pixels) {
  std::vector<std::uint64_t> wanted;
  const std::uint64_t strata = pixels.size();
  for (std::size_t s = 0; s < strata; ++s)
    wanted.push_back(std::min(pixels[s], total / strata + (s < total % strata ? 1 : 0)));
  return wanted;
}

std::vector<std::uint64_t> proportional_allocation(std::uint64_t total,
                                                   const std::vector<std::uint64_t>& pixels) {
  const std::uint64_t all = std::accumulate(pixels.begin(), pixels.end(), std::uint64_t{0});
  if (total >= all) return pixels;
  std::vector<std::uint64_t> wanted;
  std::vector<std::pair<double, std::size_t>> remainders;
  std::uint64_t given = 0;
  for (std::size_t s = 0; s < pixels.size(); ++s) {
    const double exact =
        static_cast<double>(total) * static_cast<double>(pixels[s]) / static_cast<double>(all);
    wanted.push_back(static_cast<std::uint64_t>(exact));
    given += wanted.back();
    remainders.emplace_back(static_cast<double>(wanted.back()) - exact, s);
  }
  std::sort(remainders.begin(), remainders.end());
  for (std::size_t i = 0; given < total; ++i, ++given) ++wanted[remainders[i].second];
  return wanted;
}

SampleDraw::SampleDraw(std::uint64_t seed, const std::vector<std::uint64_t>& pixels,
                       std::vector<std::uint64_t> wanted)
    : seed_(seed), wanted_(std::move(wanted)) {
  for (std::size_t s = 0; s < wanted_.size(); ++s)
    limit_.push_back(limit_for(wanted_[s], pixels[s]));
}

std::uint64_t SampleDraw::hash_of(std::uint64_t pixel) const { return pixel_hash(seed_, pixel); }

std::vector<DrawnPixel> SampleDraw::drawn(
    const std::vector<std::vector<DrawnPixel>>& candidates) const {
  const auto before = [](const DrawnPixel& a, const DrawnPixel& b) {
    return std::pair(a.hash, a.pixel) < std::pair(b.hash, b.pixel);
  };
  std::vector<DrawnPixel> out;
  for (std::size_t s = 0; s < wanted_.size(); ++s) {
    if (candidates[s].size() < wanted_[s]) return {};
    std::vector<DrawnPixel> sorted = candidates[s];
    std::sort(sorted.begin(), sorted.end(), before);
    out.insert(out.end(), sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(wanted_[s]));
  }
  std::sort(out.begin(), out.end(), before);
  return out;
}

void SampleDraw::widen() {
  for (std::uint64_t& limit : limit_)
    if (limit > 0) limit = kAll;
}

}  // namespace chalcedony
