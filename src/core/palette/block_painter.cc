#include "core/palette/block_painter.h"

#include <algorithm>

#include "core/color/ciede2000.h"

namespace chalcedony {

PaintError::PaintError(const std::vector<Color>& palette) : painted_(3) {
  for (const Color& color : palette) labs_.push_back(color.in(spaces::kLab));
}

void PaintError::measure(const ConstPlanes& lab, const std::uint8_t* numbers, std::size_t n,
                         float* errors) {
  for (std::size_t c = 0; c < 3; ++c)
    for (std::size_t i = 0; i < n; ++i)
      painted_.plane(c)[i] = static_cast<float>(labs_[std::max<std::size_t>(numbers[i], 1) - 1][c]);
  ciede2000_between(lab, read_only(painted_.planes()), n, errors);
}

void PaintByColor::find(const Block& block, std::uint32_t channels, FoundColors& found,
                        std::uint8_t* numbers, float* errors) {
  numbers_.find(block, channels, found);
  std::copy_n(found.notes.data(), block.size, numbers);
  for (std::size_t i = 0; i < block.size; ++i) errors[i] = errors_.get(found.numbers[i]);
}

void PaintByColor::note(const FoundColors& found, const std::uint8_t* numbers,
                        const float* errors) {
  for (std::size_t k = 0; k < found.unknown.size(); ++k) {
    const std::uint32_t color = found.numbers[found.unknown[k]];
    errors_.set(color, errors[k]);
    numbers_.note(color, numbers[k]);
  }
}

std::vector<Channel> BlockPainter::channels(DifferenceFormula formula) {
  std::vector<Channel> channels = channels_of(spaces::kLab);
  if (&space_of(formula) != &spaces::kLab)
    for (const Channel& channel : channels_of(space_of(formula))) channels.push_back(channel);
  return channels;
}

BlockPainter::BlockPainter(const ChannelPlan& plan, const std::vector<Color>& palette,
                           DifferenceFormula formula, PaintByColor* known)
    : channels_(plan),
      formula_(formula),
      nearest_(palette, formula),
      error_(palette),
      known_(known),
      stored_channels_(plan.info().shape.channels),
      asked_numbers_(known ? kBlockPixels + kPlanePadding : 0),
      asked_errors_(asked_numbers_.size()) {}

void BlockPainter::paint(const Block& block, std::uint8_t* numbers, float* errors) {
  if (!known_) {
    measure(block, numbers, errors);
    return;
  }
  known_->find(block, stored_channels_, found_, numbers, errors);
  const UnsetVector<std::uint32_t>& unknown = found_.unknown;
  if (unknown.empty()) return;
  measure(picked_.pick(block, unknown), asked_numbers_.data(), asked_errors_.data());
  known_->note(found_, asked_numbers_.data(), asked_errors_.data());
  for (std::size_t k = 0; k < unknown.size(); ++k) {
    numbers[unknown[k]] = asked_numbers_[k];
    errors[unknown[k]] = asked_errors_[k];
  }
}

void BlockPainter::measure(const Block& block, std::uint8_t* numbers, float* errors) {
  constexpr std::size_t kAfterLab = 3;
  channels_.evaluate(block);
  const bool in_lab = &space_of(formula_) == &spaces::kLab;
  nearest_.find(channels_.channels(in_lab ? 0 : kAfterLab), block.size, numbers);
  error_.measure(channels_.channels(0), numbers, block.size, errors);
}

}  // namespace chalcedony
