// Where the labels of a row change.
#ifndef CHALCEDONY_CORE_PIXEL_LABEL_RUNS_H_
#define CHALCEDONY_CORE_PIXEL_LABEL_RUNS_H_

#include <bit>
#include <cstddef>
#include <cstdint>
#include <cstring>
#include <vector>

#include "core/pixel/label.h"

namespace chalcedony {

/// Runs of pixels that have the same labels in one row of one or several pictures. One for each
/// thread.
class LabelRuns {
 public:
  explicit LabelRuns(std::size_t width) : width_(width), changes_(width + 8, std::uint8_t{1}) {}

  /// Starts with a row of `width` labels; the previous ones are forgotten.
  void set(const std::uint8_t* row);
  void set(const Label* row);
  /// Adds the same row of another picture.
  void add(const std::uint8_t* row);
  void add(const Label* row);

  /// The first pixel after x whose labels are not those of x; `width` when there is none.
  std::size_t end_of(std::size_t x) const {
    static_assert(std::endian::native == std::endian::little);
    for (std::size_t at = x + 1;; at += 8) {
      std::uint64_t eight = 0;
      std::memcpy(&eight, changes_.data() + at, 8);
      if (eight != 0) return at + static_cast<std::size_t>(std::countr_zero(eight)) / 8;
    }
  }

 private:
  std::size_t width_;
  std::vector<std::uint8_t>
      changes_;  // 1 where a pixel differs from the one before, and past the end
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_LABEL_RUNS_H_
