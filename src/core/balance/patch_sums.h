// The light of patches of a picture.
#ifndef CHALCEDONY_CORE_BALANCE_PATCH_SUMS_H_
#define CHALCEDONY_CORE_BALANCE_PATCH_SUMS_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/learn/sample_shape.h"
#include "core/pixel/block.h"

namespace chalcedony {

/// Sums over the pixels of a patch that count.
struct PatchSum {
  std::array<double, 3> xyz{};
  std::uint64_t pixels = 0;
  std::uint64_t full = 0;  // of these, with a channel at the end of its range, which may be cut off

  std::array<double, 3> mean() const;
};

/// The sums of all patches of a picture.
class PatchSums {
 public:
  /// `full`: the value at which a channel may be cut off; infinity where none is, as in floats.
  PatchSums(std::size_t patches, float full) : full_(full), sums_(patches) {}

  /// Adds what of the patches lies in a Block, whose pixels are `xyz` in XYZ.
  ///
  /// Range     a Block of an RGB space
  /// Shape     `runs` as sample_runs() gives them, a class for each patch
  void add(const Block& block, const ConstPlanes& xyz, const std::vector<SampleRun>& runs);
  PatchSums& operator+=(const PatchSums& other);

  std::size_t size() const { return sums_.size(); }
  const PatchSum& operator[](std::size_t patch) const { return sums_[patch]; }

 private:
  float full_;
  std::vector<PatchSum> sums_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_BALANCE_PATCH_SUMS_H_
