#include "core/learn/block_classifier.h"

#include <algorithm>
#include <cmath>

namespace chalcedony {
namespace {

constexpr std::size_t kColors = std::size_t{1} << 24;
// A note: the label and these. 0 is none.
constexpr std::uint16_t kNoted = 1u << 8, kFar = 1u << 9, kContested = 1u << 10;
constexpr float kConfidenceSteps = 65535;
// Colors are asked for this many pixels before they are needed.
constexpr std::size_t kAhead = 32;

std::unique_ptr<std::atomic<std::uint16_t>[]> for_all_colors() {
  return std::make_unique<std::atomic<std::uint16_t>[]>(kColors);
}

}  // namespace

VerdictsByColor::VerdictsByColor(bool with_confidence) : notes_(for_all_colors()) {
  if (with_confidence) confidences_ = for_all_colors();
}

void VerdictsByColor::number_colors(const ConstPlanes& color, std::size_t n,
                                    std::int32_t* numbers) {
  for (std::size_t i = 0; i < n; ++i)
    numbers[i] = static_cast<std::int32_t>(color[0][i] + 0.5f) * 65536 +
                 static_cast<std::int32_t>(color[1][i] + 0.5f) * 256 +
                 static_cast<std::int32_t>(color[2][i] + 0.5f);
}

void VerdictsByColor::read(std::int32_t number, std::uint16_t note, std::size_t i,
                           Verdicts& verdicts) const {
  verdicts.labels[i] = static_cast<std::uint8_t>(note);
  verdicts.far[i] = (note & kFar) != 0;
  verdicts.contested[i] = (note & kContested) != 0;
  if (confidences_)
    verdicts.confidence[i] = static_cast<float>(confidences_[static_cast<std::size_t>(number)].load(
                                 std::memory_order_relaxed)) /
                             kConfidenceSteps;
}

void VerdictsByColor::find(const std::int32_t* numbers, std::size_t n, Verdicts& verdicts,
                           std::vector<std::uint32_t>& unknown) const {
  unknown.clear();
  const std::atomic<std::uint16_t>* const notes = notes_.get();
  for (std::size_t i = 0; i < n; ++i) {
    __builtin_prefetch(notes + numbers[std::min(i + kAhead, n - 1)]);
    const std::uint16_t note = notes[numbers[i]].load(std::memory_order_acquire);
    if (note == 0) {
      unknown.push_back(static_cast<std::uint32_t>(i));
    } else {
      read(numbers[i], note, i, verdicts);
    }
  }
}

void VerdictsByColor::note(const std::int32_t* numbers, const std::vector<std::uint32_t>& places,
                           Verdicts& found) {
  for (std::size_t k = 0; k < places.size(); ++k) {
    const std::int32_t number = numbers[places[k]];
    const auto note =
        static_cast<std::uint16_t>(found.labels[k] | kNoted | (found.far[k] ? kFar : 0) |
                                   (found.contested[k] ? kContested : 0));
    if (confidences_)
      confidences_[static_cast<std::size_t>(number)].store(
          static_cast<std::uint16_t>(std::lround(found.confidence[k] * kConfidenceSteps)),
          std::memory_order_relaxed);
    // Whoever sees the note sees its confidence.
    notes_[static_cast<std::size_t>(number)].store(note, std::memory_order_release);
    read(number, note, k, found);
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
  numbers_.resize(block.size);
  VerdictsByColor::number_colors(block.color, block.size, numbers_.data());
  known_->find(numbers_.data(), block.size, verdicts_, unknown_);
  if (!unknown_.empty()) ask_unknown(block);
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
  Block few;
  few.picture_width = block.picture_width;
  few.size = few.counted_size = unknown_.size();
  for (std::size_t c = 0; c < 3; ++c) {
    float* const plane = asked_color_.plane(c);
    for (std::size_t k = 0; k < unknown_.size(); ++k) plane[k] = block.color[c][unknown_[k]];
    few.color[c] = plane;
  }
  ask(few, asked_);
  known_->note(numbers_.data(), unknown_, asked_);
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
