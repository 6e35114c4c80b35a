#include "core/learn/block_classifier.h"

#include <utility>

#include "core/pixel/color_memo.h"

namespace chalcedony {

BlockClassifier::BlockClassifier(const FeaturePlan& plan, const Classifier& classifier,
                                 bool with_confidence)
    : classifier_(classifier), features_(plan), verdicts_(kBlockPixels + kPlanePadding) {
  if (with_confidence) meter_.emplace(classifier);
}

const Verdicts& BlockClassifier::label(const Block& block) {
  features_.evaluate(block);
  const auto& features = features_.values();
  classifier_.classify(features, block.size, verdicts_.labels.data(),
                       {verdicts_.far.data(), verdicts_.contested.data()});
  if (meter_)
    meter_->measure(features, block.size, verdicts_.labels.data(), verdicts_.confidence.data());
  return verdicts_;
}

ModelLabeling::ModelLabeling(const PictureInfo& info, const Model& model,
                             const Classifier& classifier, bool with_confidence, double hue_floor,
                             Counting counting)
    : classifier_(classifier),
      with_confidence_(with_confidence),
      plan_(info, model.features, model.divisors, hue_floor, counting) {
  if (remembers_colors(info, model, classifier.is_slow())) known_.emplace(with_confidence);
}

std::unique_ptr<BlockLabeler> ModelLabeling::labeler() {
  auto asked = std::make_unique<BlockClassifier>(plan_, classifier_, with_confidence_);
  if (!known_) return asked;
  return std::make_unique<RememberingLabeler>(std::move(asked), *known_,
                                              plan_.info().shape.channels);
}

bool remembers_colors(const PictureInfo& info, const Model& model, bool slow_method) {
  return can_remember_labels(info, model.features, model.classes.size()) &&
         (slow_method ? ColorMemo::fits(info) : ColorMemo::pays(info));
}

}  // namespace chalcedony
