#include "core/stats/binning.h"

#include <cmath>
#include <limits>

#include "core/channel/channel_plan.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/stats/binning.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/vector_row-inl.h"

#ifndef CHALCEDONY_CORE_STATS_BINNING_CC_
#define CHALCEDONY_CORE_STATS_BINNING_CC_
namespace chalcedony {

/// What places of values are worked out from.
struct BinPlaces {
  float first, last, per_unit;
  std::int32_t top;
  const float* edges;
};

}  // namespace chalcedony
#endif

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// As Binning::bin_of, of as many values as a vector of D has.
template <class D>
HWY_INLINE void find_at(D d, const BinPlaces& places, const float* values, std::int32_t* bins) {
  const hn::RebindToSigned<D> di;
  const auto first = hn::Set(d, places.first), last = hn::Set(d, places.last),
             per_unit = hn::Set(d, places.per_unit),
             top = hn::Set(d, static_cast<float>(places.top));
  const auto one = hn::Set(di, 1);
  const auto value = hn::LoadU(d, values);
  // Of what is not a number the second is taken.
  const auto place = hn::Max(hn::Mul(hn::Sub(value, first), per_unit), hn::Zero(d));
  auto bin = hn::ConvertTo(di, hn::Min(place, top));
  const auto below = hn::Lt(value, hn::GatherIndex(d, places.edges, bin));
  const auto beyond = hn::Ge(value, hn::GatherIndex(d, places.edges + 1, bin));
  bin = hn::Sub(bin, hn::IfThenElseZero(hn::RebindMask(di, below), one));
  bin = hn::Add(bin, hn::IfThenElseZero(hn::RebindMask(di, beyond), one));
  const auto put = [&](auto mask, std::int32_t special) HWY_ATTR {
    bin = hn::IfThenElse(hn::RebindMask(di, mask), hn::Set(di, special), bin);
  };
  put(hn::Not(hn::Eq(value, value)), Binning::kNotANumber);
  put(hn::Lt(value, first), Binning::kBelow);
  put(hn::Gt(value, last), Binning::kAbove);
  hn::StoreU(bin, di, bins);
}

void find_bins_of(const BinPlaces& places, const float* values, std::size_t n, std::int32_t* bins) {
  over_row(n, [&](auto d, std::size_t i) HWY_ATTR { find_at(d, places, values + i, bins + i); });
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

HWY_EXPORT(find_bins_of);

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
  float_edges_.push_back(std::numeric_limits<float>::infinity());
}

void Binning::find_bins(const float* values, std::size_t n, std::int32_t* bins) const {
  const BinPlaces places{first_, last_, per_unit_, top_, float_edges_.data()};
  HWY_DYNAMIC_DISPATCH(find_bins_of)(places, values, n, bins);
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
#endif
