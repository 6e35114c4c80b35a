#include "core/palette/selection_colors.h"

#include <algorithm>
#include <cmath>
#include <cstddef>

#include "core/color/ciede2000.h"
#include "core/palette/example_color.h"
#include "core/palette/figure_colors.h"

namespace chalcedony {
namespace {

constexpr double kFullCircle = 360;
constexpr double kAlike = 10;            // CIEDE2000
constexpr std::size_t kMostTried = 100;  // colors, for a class that has none

/// Whether none of them that has a color looks like this one.
bool is_unlike_all(const Color& color, const std::vector<SelectedClass>& selected) {
  const auto is_alike = [&](const SelectedClass& one) {
    return !one.color.empty() &&
           ciede2000(css_color(one.color).in(spaces::kLab), color.in(spaces::kLab)) < kAlike;
  };
  return std::none_of(selected.begin(), selected.end(), is_alike);
}

/// The first class_color() that none of them looks like; where all are taken, the one of as many.
Color unlike_color(const std::vector<SelectedClass>& selected) {
  for (std::size_t tried = 0; tried < kMostTried; ++tried)
    if (is_unlike_all(class_color(tried), selected)) return class_color(tried);
  return class_color(static_cast<std::size_t>(
      std::count_if(selected.begin(), selected.end(),
                    [](const SelectedClass& one) { return !one.color.empty(); })));
}

std::optional<Color> color_meant_by(const TestNode& node, const std::vector<Channel>& channels) {
  if (node.kind == TestNode::Kind::kAnd) {
    const auto left = color_meant_by(*node.left, channels);
    return left ? left : color_meant_by(*node.right, channels);
  }
  if (node.kind == TestNode::Kind::kNear) return Color{&spaces::kLab, node.lab};
  if (node.kind != TestNode::Kind::kInside || node.value->kind != Formula::Kind::kChannel)
    return std::nullopt;
  const Channel& channel = channels[node.value->channel];
  if (!channel.is_hue()) return std::nullopt;
  const double middle = (node.low + node.high + (node.wraps ? kFullCircle : 0)) / 2;
  return example_color(channel, std::fmod(middle, kFullCircle));
}

/// The gray in the middle of what a test of a lightness lets through.
std::optional<Color> gray_meant(const TestNode& node, const std::vector<Channel>& channels) {
  if (!node.value || node.value->kind != Formula::Kind::kChannel) return std::nullopt;
  const Channel& channel = channels[node.value->channel];
  const bool is_lightness =
      channel.space && (channel.space->channel_count == 1 || channel.info().name == "l");
  if (!is_lightness) return std::nullopt;
  const ChannelInfo& usual = channel.info();
  if (node.kind == TestNode::Kind::kInside)
    return example_color(channel, (node.low + node.high) / 2);
  if (!node.limit || node.limit->kind != Formula::Kind::kNumber) return std::nullopt;
  const double end = std::clamp(node.limit->number, usual.low, usual.high);
  switch (node.kind) {
    case TestNode::Kind::kLess:
    case TestNode::Kind::kLessEqual:
      return example_color(channel, (usual.low + end) / 2);
    case TestNode::Kind::kGreater:
    case TestNode::Kind::kGreaterEqual:
      return example_color(channel, (usual.high + end) / 2);
    default:
      return std::nullopt;
  }
}

}  // namespace

std::optional<Color> color_meant(const Expression& selection) {
  const auto color = color_meant_by(*selection.test, selection.channels);
  return color ? color : gray_meant(*selection.test, selection.channels);
}

void give_colors(std::vector<SelectedClass>& selected) {
  const auto first_of_name = [&](const SelectedClass& one) -> SelectedClass& {
    return *std::find_if(selected.begin(), selected.end(),
                         [&](const SelectedClass& other) { return other.name == one.name; });
  };
  for (SelectedClass& one : selected) {
    SelectedClass& first = first_of_name(one);
    const std::optional<Color> meant = color_meant(one.where);
    if (first.color.empty() && meant && is_unlike_all(*meant, selected))
      first.color = css_hex(*meant);
  }
  for (SelectedClass& one : selected) {
    SelectedClass& first = first_of_name(one);
    if (first.color.empty()) first.color = css_hex(unlike_color(selected));
    one.color = first.color;
  }
}

}  // namespace chalcedony
