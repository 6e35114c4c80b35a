#include "core/stats/histogram.h"

#include <numeric>
#include <utility>

namespace chalcedony {

Histogram::Histogram(Binning binning, bool hue)
    : binning_(std::move(binning)), hue_(hue), counts_(binning_.bins()) {}

void Histogram::tally(float value, std::uint32_t weight) {
  const std::int32_t bin = binning_.bin_of(value);
  if (bin >= 0) {
    counts_[static_cast<std::size_t>(bin)] += weight;
  } else {
    (bin == Binning::kBelow ? below_ : bin == Binning::kAbove ? above_ : missing_) += weight;
  }
}

void Histogram::add(const Block& block, const float* values) {
  if (block.counted == nullptr && block.weights == nullptr) {
    for (std::size_t i = 0; i < block.size; ++i) tally(values[i], 1);
  } else {
    for (std::size_t i = 0; i < block.size; ++i) tally(values[i], block.weight(i));
  }
}

void Histogram::merge(const Histogram& other) {
  for (std::size_t i = 0; i < counts_.size(); ++i) counts_[i] += other.counts_[i];
  below_ += other.below_;
  above_ += other.above_;
  missing_ += other.missing_;
}

std::uint64_t Histogram::in_bins() const {
  return std::accumulate(counts_.begin(), counts_.end(), std::uint64_t{0});
}

JointHistogram::JointHistogram(Binning first, bool first_hue, Binning second, bool second_hue)
    : first_(std::move(first)),
      second_(std::move(second)),
      first_hue_(first_hue),
      second_hue_(second_hue),
      counts_(first_.bins() * second_.bins()) {}

void JointHistogram::add(const Block& block, const float* first, const float* second) {
  for (std::size_t i = 0; i < block.size; ++i) {
    const std::uint32_t weight = block.weight(i);
    if (weight == 0) continue;
    const std::int32_t a = first_.bin_of(first[i]), b = second_.bin_of(second[i]);
    if (a >= 0 && b >= 0) {
      counts_[static_cast<std::size_t>(a) * second_.bins() + static_cast<std::size_t>(b)] += weight;
    } else if ((a == Binning::kNotANumber && first_hue_) ||
               (b == Binning::kNotANumber && second_hue_)) {
      no_hue_ += weight;
    } else {
      (a == Binning::kNotANumber || b == Binning::kNotANumber ? not_a_number_ : outside_) += weight;
    }
  }
}

void JointHistogram::merge(const JointHistogram& other) {
  for (std::size_t i = 0; i < counts_.size(); ++i) counts_[i] += other.counts_[i];
  no_hue_ += other.no_hue_;
  not_a_number_ += other.not_a_number_;
  outside_ += other.outside_;
}

std::uint64_t JointHistogram::total() const {
  return std::accumulate(counts_.begin(), counts_.end(), no_hue_ + not_a_number_ + outside_);
}

}  // namespace chalcedony
