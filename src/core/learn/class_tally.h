// How many pixels of a map each class has.
#ifndef CHALCEDONY_CORE_LEARN_CLASS_TALLY_H_
#define CHALCEDONY_CORE_LEARN_CLASS_TALLY_H_

#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/pixel/block.h"
#include "core/pixel/label.h"
#include "core/pixel/raster.h"
#include "core/stats/code_counts.h"

namespace chalcedony {

/// Counts labels. One for each thread.
class ClassTally {
 public:
  /// Labels from 0 to `largest`.
  explicit ClassTally(std::size_t largest);

  /// Adds n labels.
  void add(const std::uint8_t* labels, std::size_t n);
  void add(const Label* labels, std::size_t n);

  /// Adds the labels of a Block, stored as samples of 8 or 16 bits. Pixels that do not count have
  /// label 0 (clear_uncounted), and are not counted.
  void add(const std::byte* stored, SampleType sample, const Block& block);

  /// Adds what another one of as many labels counted.
  ClassTally& operator+=(const ClassTally& other);

  /// The pixels of each label since the last call.
  std::vector<std::uint64_t> take();

 private:
  std::vector<std::uint64_t> counts_;
  std::optional<CodeCounts> codes_;  // of bytes, where there are many labels
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_CLASS_TALLY_H_
