#include "core/learn/confidence_tally.h"

#include <cmath>

namespace chalcedony {
namespace {

/// The first step with so many pixels at or below it.
template <class Steps>
double step_of_rank(const Steps& steps, std::uint64_t needed) {
  std::size_t s = 0;
  for (std::uint64_t below = steps[0]; below < needed; below += steps[s]) ++s;
  return static_cast<double>(s);
}

}  // namespace

void ConfidenceTally::add(const Label* labels, const float* confidence, std::size_t n) {
  for (std::size_t i = 0; i < n; ++i)
    if (labels[i] != 0)
      ++classes_[labels[i] - 1u][static_cast<std::size_t>(std::lround(confidence[i] * kSteps))];
}

ConfidenceTally& ConfidenceTally::operator+=(const ConfidenceTally& other) {
  for (std::size_t c = 0; c < other.classes_.size(); ++c)
    for (std::size_t s = 0; s <= kSteps; ++s) classes_[c][s] += other.classes_[c][s];
  return *this;
}

ConfidenceTally::Figures ConfidenceTally::of_all() const {
  Steps sum{};
  for (const Steps& steps : classes_)
    for (std::size_t s = 0; s <= kSteps; ++s) sum[s] += steps[s];
  return figures(sum);
}

ConfidenceTally::Figures ConfidenceTally::figures(const Steps& steps) {
  Figures out;
  std::uint64_t sum = 0;
  for (std::size_t s = 0; s <= kSteps; ++s) {
    out.pixels += steps[s];
    sum += s * steps[s];
  }
  if (out.pixels == 0) return out;
  constexpr double kPerPercent = kSteps / 100.0;
  out.mean = static_cast<double>(sum) / static_cast<double>(out.pixels) / kPerPercent;
  out.low = step_of_rank(steps, (out.pixels + 19) / 20) / kPerPercent;
  out.median = step_of_rank(steps, (out.pixels + 1) / 2) / kPerPercent;
  return out;
}

}  // namespace chalcedony
