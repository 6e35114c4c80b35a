// How the pixels of a picture get their classes: by a model, by selections.
#ifndef CHALCEDONY_CORE_LEARN_LABELING_H_
#define CHALCEDONY_CORE_LEARN_LABELING_H_

#include <cstddef>
#include <cstdint>
#include <memory>
#include <vector>

#include "core/pixel/block.h"
#include "core/pixel/label.h"

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

/// Says of which class the pixels of Blocks are. One for each thread.
class BlockLabeler {
 public:
  BlockLabeler() = default;
  BlockLabeler(const BlockLabeler&) = delete;
  BlockLabeler& operator=(const BlockLabeler&) = delete;
  virtual ~BlockLabeler() = default;

  /// What is said of the Block's pixels, of those that do not count too; good until the next call.
  virtual const Verdicts& label(const Block& block) = 0;

  /// As ChannelEvaluator counts them. Near grays are counted where a hue has no other weight.
  virtual std::uint64_t take_clipped() = 0;
  virtual std::uint64_t take_near_gray() { return 0; }
};

/// A way in which the pixels of one picture get their classes.
class Labeling {
 public:
  Labeling() = default;
  Labeling(const Labeling&) = delete;
  Labeling& operator=(const Labeling&) = delete;
  virtual ~Labeling() = default;

  /// For a thread; it must not outlive the labeling.
  virtual std::unique_ptr<BlockLabeler> labeler() = 0;

  /// Rows of neighborhood that bands must carry.
  virtual std::uint32_t halo() const { return 0; }
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_LABELING_H_
