#include "core/stats/histogram.h"

#include <array>
#include <numeric>
#include <utility>

namespace chalcedony {

Histogram::Histogram(Binning binning, bool hue)
    : binning_(std::move(binning)),
      hue_(hue),
      counts_(place_of(static_cast<std::int32_t>(binning_.bins()))) {}

void Histogram::add(const Block& block, const float* values) {
  std::array<std::int32_t, kBlockPixels> bins;
  binning_.find_bins(values, block.size, bins.data());
  std::uint64_t* const counts = counts_.data();
  for_each_weight(block, [&](std::size_t i, std::uint32_t weight) {
    counts[place_of(bins[i]) + i % kCounters] += weight;
  });
}

void Histogram::merge(const Histogram& other) {
  for (std::size_t i = 0; i < counts_.size(); ++i) counts_[i] += other.counts_[i];
}

std::uint64_t Histogram::total() const {
  return std::accumulate(counts_.begin(), counts_.end(), std::uint64_t{0});
}

JointHistogram::JointHistogram(Binning first, bool first_hue, Binning second, bool second_hue)
    : first_(std::move(first)),
      second_(std::move(second)),
      first_hue_(first_hue),
      second_hue_(second_hue),
      counts_(first_.bins() * second_.bins()) {}

void JointHistogram::add(const Block& block, const float* first, const float* second) {
  std::array<std::int32_t, kBlockPixels> first_bins, second_bins, places;
  first_.find_bins(first, block.size, first_bins.data());
  second_.find_bins(second, block.size, second_bins.data());
  const auto across = static_cast<std::int32_t>(second_.bins());
  // Places beside the bins are negative, and so is one of two with such a one.
  for (std::size_t i = 0; i < block.size; ++i)
    places[i] = (first_bins[i] | second_bins[i]) < 0 ? -1 : first_bins[i] * across + second_bins[i];
  std::uint64_t* const counts = counts_.data();
  for_each_weight(block, [&](std::size_t i, std::uint32_t weight) {
    if (places[i] >= 0) {
      counts[places[i]] += weight;
    } else {
      count_beside(first_bins[i], second_bins[i], weight);
    }
  });
}

void JointHistogram::count_beside(std::int32_t first_bin, std::int32_t second_bin,
                                  std::uint32_t weight) {
  const bool first_missing = first_bin == Binning::kNotANumber,
             second_missing = second_bin == Binning::kNotANumber;
  if ((first_missing && first_hue_) || (second_missing && second_hue_)) {
    no_hue_ += weight;
  } else {
    (first_missing || second_missing ? not_a_number_ : outside_) += weight;
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
