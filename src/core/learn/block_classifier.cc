#include "core/learn/block_classifier.h"

#include <algorithm>
#include <cmath>

namespace chalcedony {
namespace {

// A note is one more than the label, far and contested in their bits, so that 0 is none.
constexpr unsigned kFarBit = 0, kContestedBit = 1, kLabelBit = 2;
constexpr std::size_t kMostNoted = 62;  // classes
constexpr float kConfidenceSteps = 65535;

}  // namespace

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

void VerdictsByColor::note(const FoundColors& found, Verdicts& asked) {
  for (std::size_t k = 0; k < found.unknown.size(); ++k) {
    const std::uint32_t number = found.numbers[found.unknown[k]];
    const unsigned bits = static_cast<unsigned>(asked.labels[k]) << kLabelBit |
                          static_cast<unsigned>(asked.far[k]) << kFarBit |
                          static_cast<unsigned>(asked.contested[k]) << kContestedBit;
    if (confidences_) {
      const auto steps =
          static_cast<std::uint16_t>(std::lround(asked.confidence[k] * kConfidenceSteps));
      confidences_->set(number, steps);
      asked.confidence[k] = steps / kConfidenceSteps;
    }
    notes_.note(number, static_cast<std::uint8_t>(bits + 1));
  }
}

BlockClassifier::BlockClassifier(const FeaturePlan& plan, const Classifier& classifier,
                                 bool with_confidence, VerdictsByColor* known)
    : classifier_(classifier),
      features_(plan),
      known_(known),
      verdicts_(kBlockPixels + kPlanePadding),
      asked_(known ? kBlockPixels + kPlanePadding : 0),
      channels_(plan.info().shape.channels) {
  if (with_confidence) meter_.emplace(classifier);
}

const Verdicts& BlockClassifier::classify(const Block& block) {
  if (!known_) {
    ask(block, verdicts_);
    return verdicts_;
  }
  known_->find(block, channels_, found_, verdicts_);
  if (!found_.unknown.empty()) ask_unknown(block);
  return verdicts_;
}

void BlockClassifier::ask(const Block& block, Verdicts& verdicts) {
  features_.evaluate(block);
  const auto& features = features_.values();
  classifier_.classify(features, block.size, verdicts.labels.data(),
                       {verdicts.far.data(), verdicts.contested.data()});
  if (meter_)
    meter_->measure(features, block.size, verdicts.labels.data(), verdicts.confidence.data());
}

void BlockClassifier::ask_unknown(const Block& block) {
  ask(picked_.pick(block, found_.unknown), asked_);
  known_->note(found_, asked_);
  for (std::size_t k = 0; k < found_.unknown.size(); ++k) {
    const std::uint32_t i = found_.unknown[k];
    verdicts_.labels[i] = asked_.labels[k];
    verdicts_.far[i] = asked_.far[k];
    verdicts_.contested[i] = asked_.contested[k];
    verdicts_.confidence[i] = asked_.confidence[k];
  }
}

bool remembers_colors(const PictureInfo& info, const Model& model, bool slow_method) {
  const bool of_color =
      std::none_of(model.features.begin(), model.features.end(),
                   [](const Channel& c) { return needs_stored(c) || c.is_local(); });
  return of_color && info.known_in_range() && model.classes.size() <= kMostNoted &&
         (slow_method ? ColorMemo::fits(info) : ColorMemo::pays(info));
}

}  // namespace chalcedony
