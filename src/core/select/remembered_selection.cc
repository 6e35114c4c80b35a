#include "core/select/remembered_selection.h"

#include <algorithm>

namespace chalcedony {
namespace {

constexpr std::uint8_t kLeft = 1, kTaken = 2;  // 0: nothing is known of the color

bool measures_differences(const TestNode& node) {
  return node.kind == TestNode::Kind::kNear || (node.left && measures_differences(*node.left)) ||
         (node.right && measures_differences(*node.right));
}

}  // namespace

bool remembers_colors(const PictureInfo& info, const Expression& expression) {
  return remembers_colors(info, std::vector{&expression});
}

bool remembers_colors(const PictureInfo& info, const std::vector<const Expression*>& together) {
  const auto is_color = [](const Channel& channel) { return channel.space && !channel.is_hue(); };
  const auto of_color = [&](const Expression* one) {
    return std::all_of(one->channels.begin(), one->channels.end(), is_color);
  };
  const auto is_slow = [](const Expression* one) { return measures_differences(*one->test); };
  return ColorMemo::pays(info) && info.known_in_range() &&
         std::all_of(together.begin(), together.end(), of_color) &&
         std::any_of(together.begin(), together.end(), is_slow);
}

RememberedSelection::RememberedSelection(const Expression& expression, const ChannelPlan& plan,
                                         SelectedColors& known)
    : stored_channels_(plan.info().shape.channels),
      channels_(plan),
      selection_(expression),
      known_(known),
      selected_(kBlockPixels) {}

const std::uint8_t* RememberedSelection::select(const Block& block) {
  known_.find(block, stored_channels_, found_);
  const UnsetVector<std::uint32_t>& unknown = found_.unknown;
  if (!unknown.empty()) {
    const Block& picked = picked_.pick(block, unknown);
    channels_.evaluate(picked);
    const std::uint8_t* const selected = selection_.select(picked, channels_);
    for (std::size_t k = 0; k < unknown.size(); ++k) {
      const std::uint8_t note = selected[k] ? kTaken : kLeft;
      found_.notes[unknown[k]] = note;
      known_.note(found_.numbers[unknown[k]], note);
    }
  }
  const std::uint8_t* const notes = found_.notes.data();
  std::uint8_t* const __restrict selected = selected_.data();
  for (std::size_t i = 0; i < block.size; ++i) selected[i] = notes[i] >> 1;
  return selected;
}

}  // namespace chalcedony
