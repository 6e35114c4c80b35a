// Everything a class map says of the pixels of a Block.
#ifndef CHALCEDONY_CORE_LEARN_BLOCK_CLASSIFIER_H_
#define CHALCEDONY_CORE_LEARN_BLOCK_CLASSIFIER_H_

#include <cstdint>
#include <optional>
#include <vector>

#include "core/feature/features.h"
#include "core/learn/classifier.h"
#include "core/learn/confidence.h"
#include "core/pixel/block.h"
#include "core/pixel/color_memo.h"

namespace chalcedony {

/// What was found of pixels; arrays are padded as planes are.
struct Verdicts {
  std::vector<Label> labels;            // the number of the class, 0 for none
  std::vector<std::uint8_t> far;        // 1: beyond what the samples of any class reach
  std::vector<std::uint8_t> contested;  // 1: several classes would take it
  std::vector<float> confidence;        // 0-1; of no use unless asked for

  explicit Verdicts(std::size_t pixels)
      : labels(pixels), far(pixels), contested(pixels), confidence(pixels) {}
};

/// What was found of 8-bit colors; threads share it.
class VerdictsByColor {
 public:
  explicit VerdictsByColor(bool with_confidence);

  /// Looks up the colors of a Block; writes what is known to `verdicts`.
  void find(const Block& block, std::uint32_t channels, FoundColors& found, Verdicts& verdicts);
  /// Notes what was found of the unknown colors; `asked` holds them one after the other. The
  /// confidence is rounded to a 65535th, and written back so.
  void note(const FoundColors& found, Verdicts& asked);

 private:
  ColorMemo notes_;
  std::optional<NumberByColor<std::uint16_t>> confidences_;
};

/// Classifies Blocks of one picture. One for each thread.
class BlockClassifier {
 public:
  /// `known`: shared by all threads, or null to ask the classifier for every pixel. May be given
  /// where remembers_colors() says so.
  BlockClassifier(const FeaturePlan& plan, const Classifier& classifier, bool with_confidence,
                  VerdictsByColor* known = nullptr);

  /// What is said of the Block's pixels, of those that do not count too; good until the next call.
  const Verdicts& classify(const Block& block);

  std::uint64_t take_clipped() { return features_.take_clipped(); }

 private:
  void ask(const Block& block, Verdicts& verdicts);
  void ask_unknown(const Block& block);

  const Classifier& classifier_;
  FeatureEvaluator features_;
  std::optional<ConfidenceMeter> meter_;
  VerdictsByColor* known_;
  Verdicts verdicts_, asked_;
  std::uint32_t channels_;  // of a pixel as stored
  FoundColors found_;
  PickedPixels picked_;
};

/// Whether looking a color up is worth it: the picture's sRGB colors, and nothing else of its
/// pixels, decide their class, there is room for it in a note, and the picture is no small one or
/// the method slow.
bool remembers_colors(const PictureInfo& info, const Model& model, bool slow_method);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_BLOCK_CLASSIFIER_H_
