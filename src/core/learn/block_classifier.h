// Classifies Blocks of a picture by a model.
#ifndef CHALCEDONY_CORE_LEARN_BLOCK_CLASSIFIER_H_
#define CHALCEDONY_CORE_LEARN_BLOCK_CLASSIFIER_H_

#include <cstdint>
#include <memory>
#include <optional>

#include "core/feature/features.h"
#include "core/learn/classifier.h"
#include "core/learn/confidence.h"
#include "core/learn/labeling.h"
#include "core/learn/remembered_labels.h"
#include "core/pixel/block.h"
#include "core/pixel/counting.h"

namespace chalcedony {

/// What the classifier of a model says, with its confidence where that is asked for.
class BlockClassifier : public BlockLabeler {
 public:
  BlockClassifier(const FeaturePlan& plan, const Classifier& classifier, bool with_confidence);

  const Verdicts& label(const Block& block) override;
  std::uint64_t take_clipped() override { return features_.take_clipped(); }

 private:
  const Classifier& classifier_;
  FeatureEvaluator features_;
  std::optional<ConfidenceMeter> meter_;
  Verdicts verdicts_;
};

/// The labels that the classifier of a model gives the pixels of one picture.
class ModelLabeling : public Labeling {
 public:
  /// `classifier`: one for `model`. Colors are remembered where that pays.
  ///
  /// Errors    InputError as FeaturePlan
  ModelLabeling(const PictureInfo& info, const Model& model, const Classifier& classifier,
                bool with_confidence, double hue_floor = 0, Counting counting = count_all());

  std::unique_ptr<BlockLabeler> labeler() override;
  std::uint32_t halo() const override { return plan_.halo(); }

 private:
  const Classifier& classifier_;
  bool with_confidence_;
  FeaturePlan plan_;
  std::optional<VerdictsByColor> known_;
};

/// Whether labels by a model can be remembered, and looking a color up is worth it: the picture is
/// no small one or the method slow.
bool remembers_colors(const PictureInfo& info, const Model& model, bool slow_method);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_BLOCK_CLASSIFIER_H_
