// The channels a job needs, computed from a picture's Blocks by the shortest shared way.
#ifndef CHALCEDONY_CORE_CHANNEL_CHANNEL_PLAN_H_
#define CHALCEDONY_CORE_CHANNEL_CHANNEL_PLAN_H_

#include <cstddef>
#include <cstdint>
#include <optional>
#include <utility>
#include <vector>

#include "core/channel/channel.h"
#include "core/channel/formula.h"
#include "core/color/conversion.h"
#include "core/pixel/block.h"
#include "core/pixel/raster.h"
#include "core/planes.h"

namespace chalcedony {

/// Below this spread of r g b, in percent of full scale, a hue is mostly noise; the same in 0-255.
inline constexpr double kNearGrayPercent = 5;
inline constexpr auto kNearGray = static_cast<float>(kNearGrayPercent * 2.55);

/// The channels of a picture as it is: those of its space, of a gray picture `gray` or the first,
/// of one whose color is not known all that are stored.
std::vector<Channel> own_channels(const PictureInfo& info);

/// Whether a space is a luma and the picture a gray in sRGB: its weights add up to 1, so that the
/// luma is what the picture holds, as it is.
bool is_own_gray(const Space& space, const PictureInfo& info);

/// The lowest and highest usual value of a channel of a picture; a stored one goes from 0 to full
/// scale.
std::pair<double, double> usual_range(const Channel& channel, const PictureInfo& info);

/// What to compute for a list of channels. Each space on the way is computed once, and only kept
/// when it is wanted itself or several ways part there.
class ChannelPlan {
 public:
  /// A pixel whose r g b differ by at most `hue_floor` percent of full scale has no hue; never
  /// less than 0.001 of 255.
  ///
  /// Errors    InputError for a stored channel the picture does not have, and for one of a space
  ///           when its color is not known
  ChannelPlan(const PictureInfo& info, std::vector<Channel> channels, double hue_floor = 0);

  const PictureInfo& info() const { return info_; }
  const std::vector<Channel>& channels() const { return channels_; }
  /// Whether a channel is a hue, or made of one: then near grays are counted.
  bool has_hue() const { return first_hue_ != nullptr; }

 private:
  friend class ChannelEvaluator;

  /// A space computed from another node; node 0 is the picture's own space.
  struct Node {
    const Space* space = nullptr;
    std::size_t from = 0;
    Conversion conversion;
  };

  std::size_t node_of(const Space& space) const;
  void add_node(const Space& space);
  const Space& gray_test_space(const Space& space) const;

  void add_channel(const Channel& channel);

  PictureInfo info_;
  std::vector<Channel> channels_;
  std::vector<Channel> all_;  // those, after the ones that derived channels are computed from
  std::vector<std::size_t> places_;  // of channels_ in all_
  std::vector<Node> nodes_;
  std::optional<std::size_t> clipped_node_;  // where leaving 0-255 is counted
  const Space* first_hue_ = nullptr;         // the space of the first hue in the list
  float hue_floor_ = 0;                      // in 0-255
};

/// Computes the channels of a plan, Block by Block. One for each thread.
class ChannelEvaluator {
 public:
  explicit ChannelEvaluator(const ChannelPlan& plan);

  void evaluate(const Block& block);

  /// Channel i of the plan's list, `block.size` values in the contract's units. A hue is NaN where
  /// there is none, and so is what cannot be computed.
  const float* channel(std::size_t i) const { return values_[plan_->places_[i]]; }
  ConstPlanes channels(std::size_t first) const {
    return {channel(first), channel(first + 1), channel(first + 2)};
  }

  /// Counted pixels so far whose sRGB left 0-255 by more than 0.01 and was clipped, for the spaces
  /// that are defined on clipped sRGB.
  std::uint64_t take_clipped() { return std::exchange(clipped_, 0); }

  /// Counted pixels so far whose r g b differ by less than kNearGrayPercent of full scale, so that
  /// their hue is mostly noise; 0 when no channel of the plan is a hue.
  std::uint64_t take_near_gray() { return std::exchange(near_gray_, 0); }

 private:
  ConstPlanes planes_of(std::size_t node) const { return node_planes_[node]; }
  void compute_nodes(const Block& block);
  void count_clipped(const Block& block);
  void blank_hue(std::size_t i, const Block& block);
  void count_near_gray(const Space& hue_space, const Block& block);
  const float* derived_values(const DerivedChannel& channel, std::size_t n);

  const ChannelPlan* plan_;
  PlaneBuffer buffer_;
  PlaneBuffer extra_;  // hues with their gaps, and stored channels
  std::vector<ConstPlanes> node_planes_;
  std::vector<const float*> values_;  // of all channels of the plan
  FormulaEvaluator formulas_;
  std::uint64_t clipped_ = 0;
  std::uint64_t near_gray_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CHANNEL_CHANNEL_PLAN_H_
