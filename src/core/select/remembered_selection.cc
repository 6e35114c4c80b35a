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
  const auto of_color = [](const Channel& channel) { return channel.space && !channel.is_hue(); };
  return ColorMemo::pays(info) && info.known_in_range() && measures_differences(*expression.test) &&
         std::all_of(expression.channels.begin(), expression.channels.end(), of_color);
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
