// Pixels drawn from pictures that have too many colors to count them.
#ifndef CHALCEDONY_CORE_CLUSTER_PIXEL_SAMPLE_H_
#define CHALCEDONY_CORE_CLUSTER_PIXEL_SAMPLE_H_

#include <atomic>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/feature/features.h"
#include "core/pixel/block.h"

namespace chalcedony {

/// Hashes above it are not drawn. It only falls, so that what lies above it is not drawn whenever
/// it is looked at. Threads share it.
class HashLimit {
 public:
  std::uint64_t now() const { return limit_.load(std::memory_order_relaxed); }
  /// To `limit`, unless it is there or below already.
  void lower(std::uint64_t limit);

 private:
  std::atomic<std::uint64_t> limit_{~std::uint64_t{0}};
};

/// The features of pixels, of which those with the smallest hashes of seed and pixel number are
/// kept. The same for any number of threads when rows are appended in picture order.
class PixelSample {
 public:
  /// `features`: how many a pixel has.
  explicit PixelSample(std::size_t features) : features_(features) {}

  /// Adds the pixels of a Block that count, whose features are all numbers, and whose hash is not
  /// above the limit. `evaluator` has evaluated the Block.
  void add(const Block& block, const FeatureEvaluator& evaluator, std::uint64_t seed,
           std::uint64_t limit);
  /// Adds what another one found of later pixels.
  void append(const PixelSample& later);
  /// Keeps so many of the smallest hashes, in the order they came, and lowers the limit to the
  /// largest that is kept. Does nothing where there are no more.
  void keep_smallest(std::size_t most, HashLimit& limit);
  /// Leaves nothing, and gives the memory back.
  void clear() { *this = PixelSample(features_); }

  std::size_t size() const { return hashes_.size(); }
  /// The features of one of them.
  const float* values(std::size_t i) const { return values_.data() + i * features_; }
  /// Pixels that count and have all features, drawn or not; and those left out because a feature is
  /// not a number.
  std::uint64_t counted() const { return counted_; }
  std::uint64_t left_out() const { return left_out_; }

 private:
  std::size_t features_;
  std::vector<std::uint64_t> hashes_;
  std::vector<float> values_;  // of one pixel after the other
  std::uint64_t counted_ = 0, left_out_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_PIXEL_SAMPLE_H_
