#include "core/region/region_labels.h"

#include <algorithm>

#include "core/stats/ranks.h"

namespace chalcedony {
namespace {

bool below(const LabelPixels& one, Label label) { return one.label < label; }

}  // namespace

void RegionLabels::add(std::size_t region, Label label, std::uint64_t pixels) {
  std::vector<LabelPixels>& held = held_[region];
  const auto at = std::lower_bound(held.begin(), held.end(), label, below);
  if (at != held.end() && at->label == label)
    at->pixels += pixels;
  else
    held.insert(at, {label, pixels});
}

std::uint64_t RegionLabels::pixels(std::size_t region, Label label) const {
  const std::vector<LabelPixels>& held = held_[region];
  const auto at = std::lower_bound(held.begin(), held.end(), label, below);
  return at != held.end() && at->label == label ? at->pixels : 0;
}

std::uint64_t RegionLabels::pixels(std::size_t region) const {
  std::uint64_t all = 0;
  for (const LabelPixels& one : held_[region]) all += one.pixels;
  return all;
}

LabelShares label_shares(const RegionLabels& labels, Label label,
                         const std::vector<std::size_t>& regions) {
  LabelShares found;
  found.highest_region = regions.front();
  std::vector<double> shares;
  for (const std::size_t region : regions) {
    const std::uint64_t pixels = labels.pixels(region, label);
    found.pixels += pixels;
    found.held_by += pixels > 0;
    shares.push_back(100.0 * static_cast<double>(pixels) /
                     static_cast<double>(labels.pixels(region)));
    if (shares.back() > found.highest) {
      found.highest = shares.back();
      found.highest_region = region;
    }
  }
  const auto middle =
      shares.begin() + static_cast<std::ptrdiff_t>(nearest_rank(50, shares.size()) - 1);
  std::nth_element(shares.begin(), middle, shares.end());
  found.median = *middle;
  found.lowest = *std::min_element(shares.begin(), shares.end());
  return found;
}

}  // namespace chalcedony
