// The labels that several pictures have at one pixel.
#ifndef CHALCEDONY_CORE_ASSESS_LABELS_H_
#define CHALCEDONY_CORE_ASSESS_LABELS_H_

#include <array>
#include <compare>
#include <cstddef>
#include <cstdint>

#include "core/pixel/label.h"

namespace chalcedony {

/// How many other maps a map can be held against.
inline constexpr std::size_t kMostVersus = 6;

/// Where the labels of a picture stand: those of the other maps from kOfVersus.
inline constexpr std::size_t kOfMap = 0, kOfReference = 1, kOfVersus = 2;

/// Labels of a map, its reference and other maps at one pixel; 0 of those that are not there. In
/// words, which are compared and hashed as they are.
class Labels {
 public:
  static constexpr std::size_t kMost = kOfVersus + kMostVersus;

  Labels() = default;
  Labels(Label of_map, Label of_reference)
      : words_{std::uint64_t{of_map} << shift(kOfMap) | std::uint64_t{of_reference}
                                                            << shift(kOfReference)} {}

  /// Sets a label that is still 0.
  void add(std::size_t p, Label label) { words_[p / 4] |= std::uint64_t{label} << shift(p); }
  Label operator[](std::size_t p) const { return static_cast<Label>(words_[p / 4] >> shift(p)); }

  /// By the label of the first picture, then the second, and so on.
  friend auto operator<=>(const Labels&, const Labels&) = default;
  /// Of its own, as that of arrays is a call.
  friend bool operator==(const Labels& a, const Labels& b) {
    return a.words_[0] == b.words_[0] && a.words_[1] == b.words_[1];
  }

  /// Fibonacci hashing of both words: the leading bits tell most labels apart.
  std::uint64_t hash() const {
    return (words_[0] * 0x9e3779b97f4a7c15ull) ^ (words_[1] * 0xb504f333f9de6485ull);
  }

 private:
  static constexpr unsigned shift(std::size_t p) { return 48 - 16 * static_cast<unsigned>(p % 4); }

  std::array<std::uint64_t, kMost / 4> words_{};
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_LABELS_H_
