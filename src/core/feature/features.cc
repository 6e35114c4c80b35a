#include "core/feature/features.h"

#include <algorithm>
#include <iterator>
#include <utility>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/feature/features.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/vector_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// chroma times the cosine (or the sine) of the hue, times the factor; 0 where there is no hue.
void hue_part(const float* hue, const float* chroma, float factor, bool sine_part, std::size_t n,
              float* out) {
  const hn::CappedTag<float, kPlanePadding> d;
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    const auto angle = hn::LoadU(d, hue + i);
    const auto there = hn::Eq(angle, angle);
    auto sine = hn::Zero(d), cosine = hn::Zero(d);
    sine_cosine_degrees(d, hn::IfThenElseZero(there, angle), sine, cosine);
    const auto length = hn::Mul(hn::LoadU(d, chroma + i), hn::Set(d, factor));
    hn::StoreU(hn::IfThenElseZero(there, hn::Mul(length, sine_part ? sine : cosine)), d, out + i);
  }
}

void multiply(const float* in, float factor, std::size_t n, float* out) {
  const hn::CappedTag<float, kPlanePadding> d;
  for (std::size_t i = 0; i < n; i += hn::Lanes(d))
    hn::StoreU(hn::Mul(hn::LoadU(d, in + i), hn::Set(d, factor)), d, out + i);
}

// What whiteness and blackness leave of 100 %.
void leave(const float* white, const float* black, std::size_t n, float* out) {
  const hn::CappedTag<float, kPlanePadding> d;
  for (std::size_t i = 0; i < n; i += hn::Lanes(d))
    hn::StoreU(
        hn::Sub(hn::Set(d, 100.0f), hn::Add(hn::LoadU(d, white + i), hn::LoadU(d, black + i))), d,
        out + i);
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(hue_part);
HWY_EXPORT(multiply);
HWY_EXPORT(leave);

constexpr double kStoredRange = 255;

/// The channel that says how strong the hue of a space is; the whiteness where there is none.
Channel chroma_of(const Space& space) {
  for (const Channel& channel : channels_of(space)) {
    const std::string_view name = space.channels[channel.index].name;
    if (name == "c" || name == "s") return channel;
  }
  return {&space, 1};
}

bool has_white_and_black(const Space& space) { return space.channels[1].name == "w"; }

const ChannelInfo& measure_of(const Feature& feature) {
  const Channel& c = feature.channel;
  return c.is_hue() ? chroma_of(*c.space).info() : c.info();
}

}  // namespace

std::string Feature::name() const {
  if (part == Part::kValue) return channel.name();
  return channel.name() + (part == Part::kCosine ? ".cos" : ".sin");
}

std::string Feature::title() const {
  const std::string unit =
      channel.is_hue() ? chroma_of(*channel.space).shown_unit() : channel.shown_unit();
  return unit.empty() ? name() : name() + " (" + unit + ")";
}

Unit Feature::unit() const { return channel.is_stored() ? Unit::kNumber : measure_of(*this).unit; }

double Feature::range() const {
  // No values deviate from their mean by more than half of their range.
  const double share = channel.around.statistic == Around::Statistic::kDeviation ? 0.5 : 1;
  if (channel.is_stored()) return share * kStoredRange;
  const ChannelInfo& info = measure_of(*this);
  return share * (info.high - info.low);
}

std::vector<Feature> features_of(const std::vector<Channel>& channels) {
  std::vector<Feature> features;
  for (const Channel& channel : channels) {
    if (channel.is_hue()) {
      features.push_back({channel, Feature::Part::kCosine});
      features.push_back({channel, Feature::Part::kSine});
    } else {
      features.push_back({channel, Feature::Part::kValue});
    }
  }
  return features;
}

bool units_differ(const std::vector<Feature>& features) {
  double widest = 0, narrowest = 1e300;
  for (const Feature& feature : features) {
    if (feature.unit() != features[0].unit()) return true;
    widest = std::max(widest, feature.range());
    narrowest = std::min(narrowest, feature.range());
  }
  return widest > 20 * narrowest;
}

std::vector<Channel> channels_behind(const std::vector<Channel>& channels) {
  std::vector<Channel> out;
  std::remove_copy_if(channels.begin(), channels.end(), std::back_inserter(out),
                      [](const Channel& channel) { return channel.is_local(); });
  const auto add = [&](const Channel& channel) {
    if (place_of(channel, out) == out.size()) out.push_back(channel);
  };
  for (const Channel& channel : channels) {
    if (!channel.is_hue()) continue;
    add(chroma_of(*channel.space));
    if (has_white_and_black(*channel.space)) add({channel.space, 2});
  }
  return out;
}

FeaturePlan::FeaturePlan(const PictureInfo& info, const std::vector<Channel>& channels,
                         std::vector<double> divisors, double hue_floor, Counting counting)
    : channels_(info, channels_behind(channels), hue_floor),
      local_(info, channels, std::move(counting), hue_floor) {
  std::size_t local = 0;
  for (const Feature& feature : features_of(channels)) {
    Source source;
    source.part = feature.part;
    source.is_local = feature.channel.is_local();
    source.channel = source.is_local ? local++ : place_of(feature.channel, channels_.channels());
    if (feature.part != Feature::Part::kValue) {
      const Space& space = *feature.channel.space;
      source.chroma = place_of(chroma_of(space), channels_.channels());
      if (has_white_and_black(space)) source.black = place_of({&space, 2}, channels_.channels());
    }
    if (!divisors.empty()) source.factor = static_cast<float>(1 / divisors[sources_.size()]);
    sources_.push_back(source);
  }
}

FeatureEvaluator::FeatureEvaluator(const FeaturePlan& plan)
    : plan_(&plan), channels_(plan.channels_), buffer_(plan.size() + 1), values_(plan.size()) {
  if (!plan.local_.empty()) local_.emplace(plan.local_);
}

void FeatureEvaluator::evaluate(const Block& block) {
  channels_.evaluate(block);
  if (local_) local_->evaluate(block);
  float* const left = buffer_.plane(values_.size());
  for (std::size_t f = 0; f < values_.size(); ++f) {
    const FeaturePlan::Source& source = plan_->sources_[f];
    const float* const channel =
        source.is_local ? local_->values(source.channel) : channels_.channel(source.channel);
    values_[f] = channel;
    if (source.part != Feature::Part::kValue) {
      const float* chroma = channels_.channel(source.chroma);
      if (source.black) {
        HWY_DYNAMIC_DISPATCH(leave)(chroma, channels_.channel(*source.black), block.size, left);
        chroma = left;
      }
      HWY_DYNAMIC_DISPATCH(hue_part)
      (channel, chroma, source.factor, source.part == Feature::Part::kSine, block.size,
       buffer_.plane(f));
      values_[f] = buffer_.plane(f);
    } else if (source.factor != 1) {
      HWY_DYNAMIC_DISPATCH(multiply)(channel, source.factor, block.size, buffer_.plane(f));
      values_[f] = buffer_.plane(f);
    }
  }
}

}  // namespace chalcedony
#endif
