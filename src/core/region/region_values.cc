#include "core/region/region_values.h"

#include <algorithm>
#include <cmath>

#include "core/color/css_color.h"
#include "core/degrees.h"

namespace chalcedony {

RegionValues::CodeScale::CodeScale(const Channel& channel) {
  if (channel.is_stored()) return;
  const ChannelInfo& info = channel.info();
  low = info.low;
  step = (info.high - info.low) / 65535;
}

std::uint16_t RegionValues::CodeScale::code(double value) const {
  return static_cast<std::uint16_t>(std::lround(std::clamp((value - low) / step, 0.0, 65535.0)));
}

RegionValues::RegionValues(const std::vector<Channel>& channels, std::size_t regions)
    : channels_(channels), own_(channels.size()) {
  for (const Channel& channel : channels_of(spaces::kOklab)) channels_.push_back(channel);
  for (const Channel& channel : channels_) scales_.emplace_back(channel);
  sums_.assign(regions, std::vector<Sums>(channels_.size()));
}

void RegionValues::add(std::size_t region, const std::vector<std::vector<float>>& values,
                       std::size_t begin, std::size_t end) {
  for (std::size_t c = 0; c < channels_.size(); ++c) {
    Sums& sums = sums_[region][c];
    for (std::size_t i = begin; i < end; ++i) {
      const auto value = static_cast<double>(values[c][i]);
      if (!std::isfinite(value)) continue;
      ++sums.count;
      sums.sum += value;
      sums.squares += value * value;
      if (c >= own_) continue;
      if (channels_[c].is_hue()) {
        sums.cosines += std::cos(radians(value));
        sums.sines += std::sin(radians(value));
      } else {
        sums.codes.push_back(scales_[c].code(value));
      }
    }
  }
}

ChannelFigures RegionValues::figures_of(Sums& sums, std::size_t channel) const {
  ChannelFigures out;
  if (sums.count == 0) return out;
  if (channels_[channel].is_hue()) {
    out.mean = direction(sums.sines, sums.cosines);
    return out;
  }
  out.mean = sums.sum / sums.count;
  out.spread = std::sqrt(std::max(0.0, sums.squares / sums.count - *out.mean * *out.mean));
  const std::size_t half = sums.codes.size() / 2;
  const auto middle = sums.codes.begin() + static_cast<std::ptrdiff_t>(half);
  std::nth_element(sums.codes.begin(), middle, sums.codes.end());
  double code = *middle;
  if (sums.codes.size() % 2 == 0) code = (code + *std::max_element(sums.codes.begin(), middle)) / 2;
  out.median = scales_[channel].value(code);
  return out;
}

std::vector<RegionColors> RegionValues::take_colors() {
  std::vector<RegionColors> all;
  for (auto& region : sums_) {
    RegionColors& out = all.emplace_back();
    for (std::size_t c = 0; c < own_; ++c) out.channels.push_back(figures_of(region[c], c));
    const Sums* const oklab = region.data() + own_;
    if (oklab[0].count > 0)
      out.mean_color = css_hex({&spaces::kOklab,
                                {oklab[0].sum / oklab[0].count, oklab[1].sum / oklab[1].count,
                                 oklab[2].sum / oklab[2].count}});
    region.clear();
  }
  return all;
}

}  // namespace chalcedony
