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
  const auto of_color = [](const Channel& channel) {
    return !channel.is_stored() && !channel.is_hue();
  };
  return ColorCounter::fits(info) && info.known_in_range() && info.color_channels() == 3 &&
         info.shape.pixels() >= ColorCounter::kFewPixels &&
         measures_differences(*expression.test) &&
         std::all_of(expression.channels.begin(), expression.channels.end(), of_color);
}

RememberedSelection::RememberedSelection(const Expression& expression, const ChannelPlan& plan,
                                         SelectedColors& known)
    : stored_channels_(plan.info().shape.channels),
      channels_(plan),
      selection_(expression),
      known_(known),
      numbers_(kBlockPixels),
      notes_(kBlockPixels),
      selected_(kBlockPixels) {}

const std::uint8_t* RememberedSelection::select(const Block& block) {
  known_.find(block.stored, stored_channels_, block.size, numbers_.data(), notes_.data());
  find_unknown(notes_.data(), block.size, unknown_);
  if (!unknown_.empty()) {
    const Block& picked = picked_.pick(block, unknown_);
    channels_.evaluate(picked);
    const std::uint8_t* const selected = selection_.select(picked, channels_);
    for (std::size_t k = 0; k < unknown_.size(); ++k) {
      const std::uint8_t note = selected[k] ? kTaken : kLeft;
      notes_[unknown_[k]] = note;
      known_.note(numbers_[unknown_[k]], note);
    }
  }
  const std::uint8_t* const notes = notes_.data();
  std::uint8_t* const __restrict selected = selected_.data();
  for (std::size_t i = 0; i < block.size; ++i) selected[i] = notes[i] >> 1;
  return selected;
}

}  // namespace chalcedony
