// How sure a class map is, class by class.
#ifndef CHALCEDONY_CORE_LEARN_CONFIDENCE_TALLY_H_
#define CHALCEDONY_CORE_LEARN_CONFIDENCE_TALLY_H_

#include <array>
#include <cmath>
#include <cstdint>
#include <vector>

#include "core/pixel/label.h"

namespace chalcedony {

/// Counts confidences in steps of a tenth of a percent.
class ConfidenceTally {
 public:
  explicit ConfidenceTally(std::size_t classes = 0) : classes_(classes) {}

  /// A pixel of class number `label` (1 is the first), 0-1.
  void add(Label label, float confidence) {
    ++classes_[label - 1u][static_cast<std::size_t>(std::lround(confidence * kSteps))];
  }
  ConfidenceTally& operator+=(const ConfidenceTally& other) {
    for (std::size_t c = 0; c < other.classes_.size(); ++c)
      for (std::size_t s = 0; s <= kSteps; ++s) classes_[c][s] += other.classes_[c][s];
    return *this;
  }

  struct Figures {
    std::uint64_t pixels = 0;
    double mean = 0, low = 0, median = 0;  // percent; `low` has 5 % of the pixels at or below it
  };
  Figures of_class(std::size_t c) const { return figures(classes_[c]); }
  Figures of_all() const {
    Steps sum{};
    for (const Steps& steps : classes_)
      for (std::size_t s = 0; s <= kSteps; ++s) sum[s] += steps[s];
    return figures(sum);
  }

 private:
  static constexpr std::size_t kSteps = 1000;
  using Steps = std::array<std::uint64_t, kSteps + 1>;

  static Figures figures(const Steps& steps) {
    Figures out;
    std::uint64_t sum = 0;
    for (std::size_t s = 0; s <= kSteps; ++s) {
      out.pixels += steps[s];
      sum += s * steps[s];
    }
    if (out.pixels == 0) return out;
    constexpr double kPerPercent = kSteps / 100.0;
    out.mean = static_cast<double>(sum) / static_cast<double>(out.pixels) / kPerPercent;
    out.low = rank(steps, (out.pixels + 19) / 20) / kPerPercent;
    out.median = rank(steps, (out.pixels + 1) / 2) / kPerPercent;
    return out;
  }
  static double rank(const Steps& steps, std::uint64_t needed) {
    std::size_t s = 0;
    for (std::uint64_t below = steps[0]; below < needed; below += steps[s]) ++s;
    return static_cast<double>(s);
  }

  std::vector<Steps> classes_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_CONFIDENCE_TALLY_H_
