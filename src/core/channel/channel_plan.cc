#include "core/channel/channel_plan.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <set>
#include <stdexcept>

#include "core/channel/derived_channel.h"
#include "core/channel/near_gray.h"
#include "core/error.h"
#include "core/pixel/interleave.h"

namespace chalcedony {
namespace {

constexpr double kLeastHueFloor = 0.001;  // of 255: contract on missing hue

}  // namespace

std::vector<Channel> own_channels(const PictureInfo& info) {
  if (!info.has_color()) {
    std::vector<Channel> stored;
    for (std::size_t i = 0; i < info.shape.channels; ++i) stored.push_back({nullptr, i});
    return stored;
  }
  if (is_own_gray(spaces::kGray, info)) return channels_of(spaces::kGray);
  auto own = channels_of(*info.space);
  if (info.color_channels() == 1) own.resize(1);
  return own;
}

bool is_own_gray(const Space& space, const PictureInfo& info) {
  return info.color_channels() == 1 && info.space == &spaces::kSrgb &&
         (&space == &spaces::kGray || &space == &spaces::kGray709);
}

std::pair<double, double> usual_range(const Channel& channel, const PictureInfo& info) {
  if (channel.is_stored()) return {0, info.full_scale};
  return {channel.info().low, channel.info().high};
}

ChannelPlan::ChannelPlan(const PictureInfo& info, std::vector<Channel> channels, double hue_floor)
    : info_(info),
      channels_(std::move(channels)),
      hue_floor_(static_cast<float>(std::max(kLeastHueFloor, hue_floor * 2.55))) {
  for (const Channel& channel : channels_) {
    add_channel(channel);
    places_.push_back(place_of(channel, all_));
  }
  std::vector<const Space*> wanted;
  for (const Channel& channel : all_) {
    if (!channel.space) continue;
    wanted.push_back(channel.space);
    if (!channel.is_hue()) continue;
    wanted.push_back(&gray_test_space(*channel.space));
    if (!first_hue_) first_hue_ = channel.space;
  }
  const bool clips =
      !info.known_in_range() && std::any_of(wanted.begin(), wanted.end(), [&](const Space* space) {
        return space->of_clipped && space != info.space && !is_own_gray(*space, info);
      });
  if (clips) wanted.insert(wanted.begin(), {&spaces::kSrgb, &spaces::kSrgbClipped});

  // Ways part where a space has several successors on the paths to what is wanted.
  std::map<const Space*, std::set<const Space*>> successors;
  for (const Space* space : wanted) {
    const auto path = conversion_path(*info.space, *space);
    for (std::size_t i = 1; i < path.size(); ++i) successors[path[i - 1]].insert(path[i]);
  }
  nodes_.push_back({info.space, 0, Conversion(*info.space, *info.space)});
  for (const Space* space : wanted)
    for (const Space* step : conversion_path(*info.space, *space))
      if (step == space || successors[step].size() > 1 ||
          std::find(wanted.begin(), wanted.end(), step) != wanted.end())
        add_node(*step);
  if (clips) clipped_node_ = node_of(spaces::kSrgbClipped);
}

/// Adds a channel once, after those that it is computed from.
void ChannelPlan::add_channel(const Channel& channel) {
  if (channel.is_local()) throw std::logic_error("a plan of channels has no neighborhoods");
  if (place_of(channel, all_) != all_.size()) return;
  if (channel.derived)
    for (const Channel& behind : channel.derived->channels) add_channel(behind);
  if (channel.is_stored() && channel.index >= info_.shape.channels)
    throw InputError("there is no channel " + channel.name() + ", the picture has " +
                         std::to_string(info_.shape.channels),
                     "the first one is file.0");
  if (channel.space && !info_.has_color())
    throw InputError("has " + std::to_string(info_.shape.channels) +
                         " channels, and nothing says which are red, green and blue",
                     "say so with --bands, as in --bands 2,1,0, or use file.0, file.1, ...");
  all_.push_back(channel);
}

/// Where a hue is tested for being there at all: on the clipped colors for the spaces that are
/// made of them, else on plain sRGB.
const Space& ChannelPlan::gray_test_space(const Space& space) const {
  return space.of_clipped && !info_.known_in_range() ? spaces::kSrgbClipped : spaces::kSrgb;
}

std::size_t ChannelPlan::node_of(const Space& space) const {
  const auto at = std::find_if(nodes_.begin(), nodes_.end(),
                               [&](const Node& node) { return node.space == &space; });
  return static_cast<std::size_t>(at - nodes_.begin());
}

void ChannelPlan::add_node(const Space& space) {
  if (node_of(space) != nodes_.size()) return;
  if (is_own_gray(space, info_)) {
    nodes_.push_back({&space, 0, Conversion(*info_.space, *info_.space)});
    return;
  }
  const auto path = conversion_path(*info_.space, space);
  std::size_t from = 0;
  for (const Space* step : path)
    if (const std::size_t node = node_of(*step); node != nodes_.size()) from = node;
  const KnownValues known = info_.known_in_range() ? KnownValues::kInRange : KnownValues::kAny;
  nodes_.push_back({&space, from, Conversion(*nodes_[from].space, space, known)});
}

ChannelEvaluator::ChannelEvaluator(const ChannelPlan& plan)
    : plan_(&plan),
      buffer_(3 * plan.nodes_.size()),
      extra_(plan.all_.size()),
      node_planes_(plan.nodes_.size()),
      values_(plan.all_.size()) {}

void ChannelEvaluator::evaluate(const Block& block) {
  compute_nodes(block);
  if (plan_->clipped_node_) count_clipped(block);
  if (plan_->first_hue_) count_near_gray(*plan_->first_hue_, block);
  formulas_.release();
  for (std::size_t i = 0; i < values_.size(); ++i) {
    const Channel& channel = plan_->all_[i];
    if (channel.derived) {
      values_[i] = derived_values(*channel.derived, block.size);
    } else if (channel.is_stored()) {
      const RasterShape& shape = plan_->info_.shape;
      read_plane(block.stored, shape.channels, shape.sample,
                 static_cast<std::uint32_t>(channel.index), {1, 0}, extra_.plane(i), block.size);
      values_[i] = extra_.plane(i);
    } else {
      values_[i] = planes_of(plan_->node_of(*channel.space))[channel.index];
      if (channel.is_hue()) blank_hue(i, block);
    }
  }
}

/// The channels it is computed from come before it.
const float* ChannelEvaluator::derived_values(const DerivedChannel& channel, std::size_t n) {
  const auto values_of = [&](std::size_t place) {
    return values_[place_of(channel.channels[place], plan_->all_)];
  };
  return formulas_.evaluate(*channel.value, values_of, n);
}

void ChannelEvaluator::compute_nodes(const Block& block) {
  node_planes_[0] = block.color;
  for (std::size_t n = 1; n < plan_->nodes_.size(); ++n) {
    const ChannelPlan::Node& node = plan_->nodes_[n];
    if (node.conversion.is_identity()) {
      node_planes_[n] = node_planes_[node.from];
      continue;
    }
    const Planes out = buffer_.planes(3 * n);
    node.conversion.run(node_planes_[node.from], out, block.size);
    node_planes_[n] = read_only(out);
  }
}

void ChannelEvaluator::count_clipped(const Block& block) {
  const ConstPlanes clipped = planes_of(*plan_->clipped_node_);
  const ConstPlanes before = planes_of(plan_->nodes_[*plan_->clipped_node_].from);
  // The node before the clip is sRGB unless the picture's own space comes after it, and then
  // nothing is clipped.
  if (plan_->nodes_[plan_->nodes_[*plan_->clipped_node_].from].space != &spaces::kSrgb) return;
  for (std::size_t i = 0; i < block.size; ++i) {
    float most = 0;
    for (std::size_t c = 0; c < 3; ++c)
      most = std::max(most, std::abs(before[c][i] - clipped[c][i]));
    if (most > kGamutTolerance) clipped_ += block.weight(i);
  }
}

void ChannelEvaluator::count_near_gray(const Space& hue_space, const Block& block) {
  const ConstPlanes rgb = planes_of(plan_->node_of(plan_->gray_test_space(hue_space)));
  near_gray_ += chalcedony::count_near_gray(rgb, kNearGray, block);
}

void ChannelEvaluator::blank_hue(std::size_t i, const Block& block) {
  const Space& space = *plan_->all_[i].space;
  const ConstPlanes rgb = planes_of(plan_->node_of(plan_->gray_test_space(space)));
  float* const out = extra_.plane(i);
  blank_hues(rgb, values_[i], plan_->hue_floor_, block.size, out);
  values_[i] = out;
}

}  // namespace chalcedony
