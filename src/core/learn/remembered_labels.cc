#include "core/learn/remembered_labels.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace chalcedony {
namespace {

// A note is one more than the label, far and contested in their bits, so that 0 is none.
constexpr unsigned kFarBit = 0, kContestedBit = 1, kLabelBit = 2;
constexpr std::size_t kMostRemembered = 62;  // classes
static_assert((kMostRemembered << kLabelBit | 3) + 1 <= 0xff);

constexpr float kConfidenceSteps = 65535;

std::uint16_t steps_of(float confidence) {
  return static_cast<std::uint16_t>(std::lround(confidence * kConfidenceSteps));
}

}  // namespace

bool can_remember_labels(const PictureInfo& info, const std::vector<Channel>& channels,
                         std::size_t classes) {
  const bool of_color = std::none_of(channels.begin(), channels.end(), [](const Channel& c) {
    return needs_stored(c) || c.is_local();
  });
  return of_color && info.known_in_range() && classes <= kMostRemembered;
}

VerdictsByColor::VerdictsByColor(bool with_confidence) {
  if (with_confidence) confidences_.emplace();
}

void VerdictsByColor::find(const Block& block, std::uint32_t channels, FoundColors& found,
                           Verdicts& verdicts) {
  notes_.find(block, channels, found);
  const std::size_t n = block.size;
  const std::uint8_t* const notes = found.notes.data();
  Label* const __restrict labels = verdicts.labels.data();
  std::uint8_t* const __restrict far = verdicts.far.data();
  std::uint8_t* const __restrict contested = verdicts.contested.data();
  for (std::size_t i = 0; i < n; ++i) {
    const auto bits = static_cast<std::uint8_t>(notes[i] - 1);
    labels[i] = static_cast<Label>(bits >> kLabelBit);
    far[i] = bits >> kFarBit & 1;
    contested[i] = bits >> kContestedBit & 1;
  }
  if (!confidences_) return;
  for (std::size_t i = 0; i < block.size; ++i)
    verdicts.confidence[i] = confidences_->get(found.numbers[i]) / kConfidenceSteps;
}

void VerdictsByColor::note(const FoundColors& found, const Verdicts& asked) {
  for (std::size_t k = 0; k < found.unknown.size(); ++k) {
    const std::uint32_t number = found.numbers[found.unknown[k]];
    const unsigned bits = static_cast<unsigned>(asked.labels[k]) << kLabelBit |
                          static_cast<unsigned>(asked.far[k]) << kFarBit |
                          static_cast<unsigned>(asked.contested[k]) << kContestedBit;
    if (confidences_) confidences_->set(number, steps_of(asked.confidence[k]));
    notes_.note(number, static_cast<std::uint8_t>(bits + 1));
  }
}

float VerdictsByColor::remembered(float confidence) {
  return steps_of(confidence) / kConfidenceSteps;
}

RememberingLabeler::RememberingLabeler(std::unique_ptr<BlockLabeler> asked, VerdictsByColor& known,
                                       std::uint32_t stored_channels)
    : asked_(std::move(asked)),
      known_(known),
      channels_(stored_channels),
      verdicts_(kBlockPixels + kPlanePadding) {}

const Verdicts& RememberingLabeler::label(const Block& block) {
  known_.find(block, channels_, found_, verdicts_);
  if (!found_.unknown.empty()) ask_unknown(block);
  return verdicts_;
}

void RememberingLabeler::ask_unknown(const Block& block) {
  const Verdicts& asked = asked_->label(picked_.pick(block, found_.unknown));
  known_.note(found_, asked);
  for (std::size_t k = 0; k < found_.unknown.size(); ++k) {
    const std::uint32_t i = found_.unknown[k];
    verdicts_.labels[i] = asked.labels[k];
    verdicts_.far[i] = asked.far[k];
    verdicts_.contested[i] = asked.contested[k];
    verdicts_.confidence[i] = VerdictsByColor::remembered(asked.confidence[k]);
  }
}

}  // namespace chalcedony
