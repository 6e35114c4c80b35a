#include "core/learn/block_classifier.h"

#include <algorithm>
#include <cmath>

namespace chalcedony {
namespace {

constexpr std::size_t kColors = std::size_t{1} << 24;
// A note: the label, these two, and the confidence in the upper half. 0 is none.
constexpr std::uint32_t kNoted = 1u << 8, kFar = 1u << 9, kContested = 1u << 10;
constexpr float kConfidenceSteps = 65535;

std::size_t color_number(const ConstPlanes& color, std::size_t i) {
  const auto part = [&](std::size_t c) { return static_cast<std::size_t>(color[c][i] + 0.5f); };
  return part(0) << 16 | part(1) << 8 | part(2);
}

void read_note(std::uint32_t note, std::size_t i, Verdicts& verdicts) {
  verdicts.labels[i] = static_cast<std::uint8_t>(note);
  verdicts.far[i] = (note & kFar) != 0;
  verdicts.contested[i] = (note & kContested) != 0;
  verdicts.confidence[i] = static_cast<float>(note >> 16) / kConfidenceSteps;
}

}  // namespace

VerdictsByColor::VerdictsByColor()
    : notes_(std::make_unique<std::atomic<std::uint32_t>[]>(kColors)) {}

void VerdictsByColor::find(const ConstPlanes& color, std::size_t n, Verdicts& verdicts,
                           std::vector<std::uint32_t>& unknown) const {
  unknown.clear();
  for (std::size_t i = 0; i < n; ++i) {
    const std::uint32_t note = notes_[color_number(color, i)].load(std::memory_order_relaxed);
    if (note == 0) {
      unknown.push_back(static_cast<std::uint32_t>(i));
    } else {
      read_note(note, i, verdicts);
    }
  }
}

void VerdictsByColor::note(const ConstPlanes& color, const std::vector<std::uint32_t>& places,
                           Verdicts& found) {
  for (std::size_t k = 0; k < places.size(); ++k) {
    const auto steps =
        static_cast<std::uint32_t>(std::lround(found.confidence[k] * kConfidenceSteps));
    const std::uint32_t note = found.labels[k] | kNoted | (found.far[k] ? kFar : 0) |
                               (found.contested[k] ? kContested : 0) | steps << 16;
    notes_[color_number(color, places[k])].store(note, std::memory_order_relaxed);
    read_note(note, k, found);
  }
}

BlockClassifier::BlockClassifier(const FeaturePlan& plan, const Classifier& classifier,
                                 bool with_confidence, VerdictsByColor* known)
    : classifier_(classifier),
      features_(plan),
      known_(known),
      verdicts_(kBlockPixels + kPlanePadding),
      asked_(known ? kBlockPixels + kPlanePadding : 0),
      asked_color_(known ? 3 : 1) {
  if (with_confidence) meter_.emplace(classifier);
}

const Verdicts& BlockClassifier::classify(const Block& block) {
  if (!known_) {
    ask(block, verdicts_);
    return verdicts_;
  }
  known_->find(block.color, block.size, verdicts_, unknown_);
  if (!unknown_.empty()) ask_unknown(block);
  return verdicts_;
}

void BlockClassifier::ask(const Block& block, Verdicts& verdicts) {
  features_.evaluate(block);
  const auto& features = features_.values();
  classifier_.classify(features, block.size, verdicts.labels.data(), verdicts.far.data());
  classifier_.contested(features, block.size, verdicts.contested.data());
  if (meter_)
    meter_->measure(features, block.size, verdicts.labels.data(), verdicts.confidence.data());
}

void BlockClassifier::ask_unknown(const Block& block) {
  Block few;
  few.picture_width = block.picture_width;
  few.size = few.counted_size = unknown_.size();
  for (std::size_t c = 0; c < 3; ++c) {
    float* const plane = asked_color_.plane(c);
    for (std::size_t k = 0; k < unknown_.size(); ++k) plane[k] = block.color[c][unknown_[k]];
    few.color[c] = plane;
  }
  ask(few, asked_);
  known_->note(block.color, unknown_, asked_);
  for (std::size_t k = 0; k < unknown_.size(); ++k) {
    const std::uint32_t i = unknown_[k];
    verdicts_.labels[i] = asked_.labels[k];
    verdicts_.far[i] = asked_.far[k];
    verdicts_.contested[i] = asked_.contested[k];
    verdicts_.confidence[i] = asked_.confidence[k];
  }
}

bool remembers_colors(const PictureInfo& info, const Model& model) {
  const bool of_color = std::none_of(model.features.begin(), model.features.end(),
                                     [](const Channel& c) { return c.is_stored(); });
  return of_color && info.shape.sample == SampleType::kU8 && info.shape.channels >= 3 &&
         info.space == &spaces::kSrgb && info.alpha != AlphaKind::kPremultiplied;
}

}  // namespace chalcedony
