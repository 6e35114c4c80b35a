#include "core/color/gamut_map.h"

#include <algorithm>
#include <cmath>

namespace chalcedony {
namespace {

constexpr float kJustSeen = 0.02f, kNear = 0.0001f;

float outside_by(const Planes& rgb, std::size_t i) {
  float most = 0;
  for (std::size_t c = 0; c < 3; ++c) most = std::max({most, rgb[c][i] - 255, -rgb[c][i]});
  return most;
}

float distance(const Planes& a, const Planes& b, std::size_t i) {
  float sum = 0;
  for (std::size_t c = 0; c < 3; ++c) sum += (a[c][i] - b[c][i]) * (a[c][i] - b[c][i]);
  return std::sqrt(sum);
}

}  // namespace

GamutMap::GamutMap(const Space& rgb)
    : to_oklch_(rgb, spaces::kOklch),
      from_oklch_(spaces::kOklch, rgb),
      to_oklab_(rgb, spaces::kOklab),
      from_oklab_(spaces::kOklch, spaces::kOklab) {}

/// The colors outside, side by side, as they are.
void GamutMap::gather(const Planes& rgb, std::size_t n) {
  pixels_.clear();
  for (std::size_t i = 0; i < n; ++i)
    if (outside_by(rgb, i) > kGamutTolerance) pixels_.push_back(i);
  for (std::size_t c = 0; c < 3; ++c)
    for (std::size_t i = 0; i < pixels_.size(); ++i) origin_.plane(c)[i] = rgb[c][pixels_[i]];
  to_oklch_.run(read_only(origin_.planes()), origin_.planes(), pixels_.size());
}

/// The colors with the chroma tried: as the RGB space shows them, clipped, and both in oklab.
void GamutMap::try_chroma() {
  const std::size_t n = pixels_.size();
  from_oklch_.run(read_only(tried_.planes()), shown_.planes(), n);
  for (std::size_t c = 0; c < 3; ++c)
    for (std::size_t i = 0; i < n; ++i)
      clipped_.plane(c)[i] = std::clamp(shown_.plane(c)[i], 0.0f, 255.0f);
  to_oklab_.run(read_only(clipped_.planes()), clipped_lab_.planes(), n);
  from_oklab_.run(read_only(tried_.planes()), tried_lab_.planes(), n);
}

/// Narrows the search of one color; true when its clipped color is the result.
bool GamutMap::settle(std::size_t i) {
  Search& search = searches_[i];
  const float chroma = tried_.plane(1)[i];
  const bool within = outside_by(shown_.planes(), i) <= kGamutTolerance;
  if (search.low_within && within) {
    search.low = chroma;
  } else {
    const float difference = distance(clipped_lab_.planes(), tried_lab_.planes(), i);
    if (difference < kJustSeen) {
      if (kJustSeen - difference < kNear) return true;
      search.low_within = false;
      search.low = chroma;
    } else {
      search.high = chroma;
    }
  }
  return search.high - search.low <= kNear;
}

void GamutMap::run(const Planes& rgb, std::size_t n) {
  gather(rgb, n);
  const std::size_t count = pixels_.size();
  if (count == 0) return;
  searches_.assign(count, {});
  for (std::size_t c = 0; c < 3; ++c) std::copy_n(origin_.plane(c), count, tried_.plane(c));
  try_chroma();
  const auto take = [&](std::size_t i) {
    searches_[i].done = true;
    for (std::size_t c = 0; c < 3; ++c) rgb[c][pixels_[i]] = clipped_.plane(c)[i];
  };
  for (std::size_t i = 0; i < count; ++i) {
    const float lightness = origin_.plane(0)[i];
    searches_[i] = {0, origin_.plane(1)[i], true, false};
    if (lightness >= 1 || lightness <= 0) {
      take(i);
      for (std::size_t c = 0; c < 3; ++c) rgb[c][pixels_[i]] = lightness >= 1 ? 255.0f : 0.0f;
    } else if (distance(clipped_lab_.planes(), tried_lab_.planes(), i) < kJustSeen) {
      take(i);
    }
  }
  const auto open = [](const Search& search) { return !search.done; };
  while (std::any_of(searches_.begin(), searches_.end(), open)) {
    for (std::size_t i = 0; i < count; ++i)
      tried_.plane(1)[i] = (searches_[i].low + searches_[i].high) / 2;
    try_chroma();
    for (std::size_t i = 0; i < count; ++i)
      if (!searches_[i].done && settle(i)) take(i);
  }
}

}  // namespace chalcedony
