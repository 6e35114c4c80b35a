// How sure a class map is, class by class.
#ifndef CHALCEDONY_CORE_LEARN_CONFIDENCE_TALLY_H_
#define CHALCEDONY_CORE_LEARN_CONFIDENCE_TALLY_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/pixel/label.h"

namespace chalcedony {

/// Counts confidences in steps of a tenth of a percent.
class ConfidenceTally {
 public:
  explicit ConfidenceTally(std::size_t classes = 0) : classes_(classes) {}

  /// Adds the confidence, 0-1, of those of n pixels that have a class; label 1 is the first.
  void add(const Label* labels, const float* confidence, std::size_t n);
  /// Adds what another one of as many classes counted.
  ConfidenceTally& operator+=(const ConfidenceTally& other);

  struct Figures {
    std::uint64_t pixels = 0;
    double mean = 0, low = 0, median = 0;  // percent; `low` has 5 % of the pixels at or below it
  };
  /// All 0 for a class without pixels.
  Figures of_class(std::size_t c) const { return figures(classes_[c]); }
  Figures of_all() const;

 private:
  static constexpr std::size_t kSteps = 1000;
  using Steps = std::array<std::uint64_t, kSteps + 1>;

  static Figures figures(const Steps& steps);

  std::vector<Steps> classes_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_CONFIDENCE_TALLY_H_
