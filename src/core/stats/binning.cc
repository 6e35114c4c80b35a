#include "core/stats/binning.h"

#include <cmath>
#include <limits>

#include "core/color/channel_plan.h"

namespace chalcedony {
namespace {

float not_below(double edge) {
  const float rounded = static_cast<float>(edge);
  return rounded < edge ? std::nextafter(rounded, std::numeric_limits<float>::infinity()) : rounded;
}

float not_above(double edge) {
  const float rounded = static_cast<float>(edge);
  return rounded > edge ? std::nextafter(rounded, -std::numeric_limits<float>::infinity())
                        : rounded;
}

}  // namespace

Binning::Binning(double low, double high, std::size_t bins)
    : low_(low),
      high_(high),
      bins_(bins),
      first_(not_below(low)),
      last_(not_above(high)),
      per_unit_(static_cast<float>(static_cast<double>(bins) / (high - low))),
      top_(static_cast<std::int32_t>(bins) - 1) {
  for (std::size_t i = 0; i < bins; ++i) float_edges_.push_back(not_below(edge(i)));
}

Binning channel_binning(const Channel& channel, std::size_t bins, const PictureInfo& info) {
  if (channel.is_stored())
    return Binning(0, full_scale_of(info.shape.sample) + (info.is_float() ? 0 : 1), bins);
  const ChannelInfo& usual = channel.info();
  return Binning(usual.low, usual.unit == Unit::kOf255 ? 256 : usual.high, bins);
}

bool has_codes(const Channel& channel, const PictureInfo& info) {
  if (info.shape.sample != SampleType::kU8) return false;
  if (channel.is_stored()) return true;
  if (!channel.space || info.full_scale < 255) return false;
  const bool own =
      channel.space == info.space && info.has_color() && channel.info().unit == Unit::kOf255;
  return own || is_own_gray(*channel.space, info);
}

}  // namespace chalcedony
