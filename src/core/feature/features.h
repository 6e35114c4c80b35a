// What a classifier or a grouping looks at: numbers made of the channels of a pixel.
#ifndef CHALCEDONY_CORE_FEATURE_FEATURES_H_
#define CHALCEDONY_CORE_FEATURE_FEATURES_H_

#include <cstddef>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/channel/channel_plan.h"
#include "core/feature/local_features.h"

namespace chalcedony {

/// One number of a pixel. A hue is an angle, in which 359 and 1 are far apart and grays stand
/// anywhere, so it makes two numbers: the cosine and the sine, times the chroma of its space.
struct Feature {
  enum class Part { kValue, kCosine, kSine };
  Channel channel;
  Part part = Part::kValue;

  /// `lab.a`; `lch.h.cos`.
  std::string name() const;
  /// For axes: the name and the unit.
  std::string title() const;
  /// What the number is counted in; that of the chroma for a hue.
  Unit unit() const;
  /// The usual span of its values.
  double range() const;
};

/// The features of a list of channels, in order.
std::vector<Feature> features_of(const std::vector<Channel>& channels);

/// Whether distances over these features add up different things, such as percent and 0-255, or
/// numbers whose usual spans are far apart.
bool units_differ(const std::vector<Feature>& features);

/// The channels of the pixel itself that the features are computed from: those of the list, and the
/// chroma of hues.
std::vector<Channel> channels_behind(const std::vector<Channel>& channels);

/// How to compute the features of a picture.
class FeaturePlan {
 public:
  /// `divisors`: what each feature is divided by; empty for nothing. `counting`: what lends to its
  /// neighbors.
  ///
  /// Errors    InputError as ChannelPlan
  FeaturePlan(const PictureInfo& info, const std::vector<Channel>& channels,
              std::vector<double> divisors = {}, double hue_floor = 0,
              Counting counting = count_all());

  std::size_t size() const { return sources_.size(); }
  /// The picture they are computed from.
  const PictureInfo& info() const { return channels_.info(); }
  /// Rows of neighborhood that bands must carry.
  std::uint32_t halo() const { return local_.halo(); }

 private:
  friend class FeatureEvaluator;

  /// Where a feature comes from: channels of the plan.
  struct Source {
    Feature::Part part = Feature::Part::kValue;
    bool is_local = false;
    std::size_t channel = 0;           // of a local one its place among them
    std::size_t chroma = 0;            // of a hue
    std::optional<std::size_t> black;  // then chroma is what `chroma` (whiteness) and this leave
    float factor = 1;
  };

  ChannelPlan channels_;
  LocalPlan local_;
  std::vector<Source> sources_;
};

/// Computes features Block by Block. One for each thread.
class FeatureEvaluator {
 public:
  explicit FeatureEvaluator(const FeaturePlan& plan);

  void evaluate(const Block& block);

  /// One plane for each feature, padded as in planes.h. A pixel without hue has 0 for both numbers
  /// of it.
  const std::vector<const float*>& values() const { return values_; }
  /// Whether all features of pixel i are numbers.
  bool complete(std::size_t i) const {
    for (const float* values : values_)
      if (!(values[i] == values[i])) return false;
    return true;
  }

  std::uint64_t take_clipped() { return channels_.take_clipped(); }

 private:
  const FeaturePlan* plan_;
  ChannelEvaluator channels_;
  std::optional<LocalEvaluator> local_;
  PlaneBuffer buffer_;
  std::vector<const float*> values_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FEATURE_FEATURES_H_
