// Everything a class map says of the pixels of a Block.
#ifndef CHALCEDONY_CORE_LEARN_BLOCK_CLASSIFIER_H_
#define CHALCEDONY_CORE_LEARN_BLOCK_CLASSIFIER_H_

#include <atomic>
#include <cstdint>
#include <memory>
#include <optional>
#include <vector>

#include "core/learn/classifier.h"
#include "core/learn/confidence.h"
#include "core/learn/features.h"
#include "core/pixel/block.h"

namespace chalcedony {

/// What was found of pixels; arrays are padded as planes are.
struct Verdicts {
  std::vector<std::uint8_t> labels;     // the number of the class, 0 for none
  std::vector<std::uint8_t> far;        // 1: beyond what the samples of any class reach
  std::vector<std::uint8_t> contested;  // 1: several classes would take it
  std::vector<float> confidence;        // 0-1; of no use unless asked for

  explicit Verdicts(std::size_t pixels)
      : labels(pixels), far(pixels), contested(pixels), confidence(pixels) {}
};

/// What was found of 8-bit colors, so that a slow classifier is asked once for each. Threads share
/// it; what they write of a color is the same, whoever comes first.
class VerdictsByColor {
 public:
  explicit VerdictsByColor(bool with_confidence);

  /// The numbers of n colors, r g b 0-255.
  static void number_colors(const ConstPlanes& color, std::size_t n, std::int32_t* numbers);

  /// Looks up n colors by their numbers, and writes what is known to `verdicts` and the places of
  /// the others to `unknown`.
  void find(const std::int32_t* numbers, std::size_t n, Verdicts& verdicts,
            std::vector<std::uint32_t>& unknown) const;
  /// Notes what was found of the pixels at these places; `found` holds them one after the other.
  /// The confidence is rounded to a 65535th, and written back so.
  void note(const std::int32_t* numbers, const std::vector<std::uint32_t>& places, Verdicts& found);

 private:
  void read(std::int32_t number, std::uint16_t note, std::size_t i, Verdicts& verdicts) const;

  std::unique_ptr<std::atomic<std::uint16_t>[]> notes_, confidences_;
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
  std::vector<std::int32_t> numbers_;
  std::vector<std::uint32_t> unknown_;
  PlaneBuffer asked_color_;
};

/// Whether a picture's colors, and nothing else of its pixels, decide their class, and are few
/// enough to remember.
bool remembers_colors(const PictureInfo& info, const Model& model);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_BLOCK_CLASSIFIER_H_
