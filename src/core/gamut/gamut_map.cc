#include "core/gamut/gamut_map.h"

#include <algorithm>
#include <cmath>

#include "core/pixel/color_number.h"
#include "core/pixel/interleave.h"

namespace chalcedony {
namespace {

constexpr float kJustSeen = 0.02f, kNear = 0.0001f;
constexpr std::uint32_t kNoted = 1u << 24;  // above the bits of r g b

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

bool MappedColors::fits(const PictureInfo& from, const PictureInfo& to) {
  return ColorMemo::pays(from) && ColorMemo::fits(to);
}

std::optional<std::array<std::uint8_t, 3>> MappedColors::find(std::uint32_t color) {
  const std::uint32_t bits = mapped_.get(color);
  if ((bits & kNoted) == 0) return {};
  return std::array{static_cast<std::uint8_t>(bits >> 16), static_cast<std::uint8_t>(bits >> 8),
                    static_cast<std::uint8_t>(bits)};
}

void MappedColors::note(std::uint32_t color, const std::array<std::uint8_t, 3>& mapped) {
  const std::uint32_t bits = kNoted | std::uint32_t{mapped[0]} << 16 |
                             std::uint32_t{mapped[1]} << 8 | std::uint32_t{mapped[2]};
  mapped_.set(color, bits);
}

GamutMap::GamutMap(const Space& rgb, MappedColors* known)
    : to_oklch_(rgb, spaces::kOklch),
      from_oklch_(spaces::kOklch, rgb),
      to_oklab_(rgb, spaces::kOklab),
      from_oklab_(spaces::kOklch, spaces::kOklab),
      known_(known) {}

void GamutMap::find_outside(const Planes& rgb, std::size_t n) {
  pixels_.clear();
  for (std::size_t i = 0; i < n; ++i)
    if (outside_by(rgb, i) > kGamutTolerance) pixels_.push_back(i);
}

/// Those of which it is known become what was noted; the others stay in the list.
void GamutMap::take_known(const Block& block, std::uint32_t stored_channels, const Planes& rgb) {
  colors_.clear();
  std::size_t unknown = 0;
  for (const std::size_t i : pixels_) {
    const std::uint32_t color = color_number(block.stored + i * stored_channels);
    if (const auto mapped = known_->find(color)) {
      for (std::size_t c = 0; c < 3; ++c) rgb[c][i] = (*mapped)[c];
    } else {
      pixels_[unknown++] = i;
      colors_.push_back(color);
    }
  }
  pixels_.resize(unknown);
}

void GamutMap::note_mapped(const Planes& rgb) {
  const std::size_t n = pixels_.size();
  for (std::size_t c = 0; c < 3; ++c)
    for (std::size_t k = 0; k < n; ++k) shown_.plane(c)[k] = rgb[c][pixels_[k]];
  rounded_.resize(3 * n);
  const SampleScale same;
  write_planes(read_only(shown_.planes()), n, 3, SampleType::kU8, {same, same, same},
               rounded_.data());
  const auto code = [&](std::size_t i) { return std::to_integer<std::uint8_t>(rounded_[i]); };
  for (std::size_t k = 0; k < n; ++k)
    known_->note(colors_[k], {code(3 * k), code(3 * k + 1), code(3 * k + 2)});
}

void GamutMap::run(const Planes& rgb, std::size_t n) {
  find_outside(rgb, n);
  map_outside(rgb);
}

void GamutMap::run(const Block& block, std::uint32_t stored_channels, const Planes& rgb) {
  find_outside(rgb, block.size);
  if (known_) take_known(block, stored_channels, rgb);
  map_outside(rgb);
  if (known_) note_mapped(rgb);
}

/// The colors outside, side by side, as they are.
void GamutMap::gather(const Planes& rgb) {
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

void GamutMap::map_outside(const Planes& rgb) {
  const std::size_t count = pixels_.size();
  if (count == 0) return;
  gather(rgb);
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
