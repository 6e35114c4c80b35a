// What the pixels of patches of a picture add up to.
#ifndef CHALCEDONY_CORE_BALANCE_PATCH_SUMS_H_
#define CHALCEDONY_CORE_BALANCE_PATCH_SUMS_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <span>
#include <vector>

#include "core/learn/sample_shape.h"
#include "core/pixel/block.h"

namespace chalcedony {

/// Sums over the pixels of a patch that count.
struct PatchSum {
  static constexpr std::size_t kMostPlanes = 6;

  std::array<double, kMostPlanes> sums{}, squares{};  // of the values of each plane
  std::uint64_t pixels = 0;
  std::uint64_t full = 0;  // of these, with a channel at the end of its range, which may be cut off

  double mean(std::size_t plane) const;
  /// Divided by the pixels.
  double variance(std::size_t plane) const;
  /// Of the first three planes.
  std::array<double, 3> mean() const { return {mean(0), mean(1), mean(2)}; }
};

/// The sums of all patches of a picture.
class PatchSums {
 public:
  /// `full`: the value at which a channel may be cut off; infinity where none is, as in floats.
  PatchSums(std::size_t patches, float full) : full_(full), sums_(patches) {}

  /// Adds what of the patches lies in a Block, whose pixels have these values.
  ///
  /// Range     a Block of three channels where `full` is finite
  /// Shape     `planes` at most kMostPlanes, each of the Block's pixels; `runs` as sample_runs()
  ///           gives them, a class for each patch
  void add(const Block& block, std::span<const float* const> planes,
           const std::vector<SampleRun>& runs);
  PatchSums& operator+=(const PatchSums& other);

  std::size_t size() const { return sums_.size(); }
  const PatchSum& operator[](std::size_t patch) const { return sums_[patch]; }

 private:
  bool is_full(const Block& block, std::size_t i) const;

  float full_;
  std::vector<PatchSum> sums_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_BALANCE_PATCH_SUMS_H_
