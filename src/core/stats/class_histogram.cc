#include "core/stats/class_histogram.h"

#include <algorithm>
#include <array>
#include <numeric>
#include <utility>

namespace chalcedony {
namespace {

/// The bins whose values have the largest sum; at least one.
BinRange largest_sum(const std::vector<double>& values, double& sum) {
  BinRange best{0, 1};
  sum = values[0];
  double running = 0;
  std::size_t first = 0;
  for (std::size_t i = 0; i < values.size(); ++i) {
    if (running <= 0) {
      running = 0;
      first = i;
    }
    running += values[i];
    if (running > sum) {
      sum = running;
      best = {first, i - first + 1};
    }
  }
  return best;
}

/// The same on a circle: what is not in the least sum.
BinRange largest_sum_on_circle(const std::vector<double>& values) {
  double straight = 0, least = 0;
  const BinRange inside = largest_sum(values, straight);
  std::vector<double> negative(values.size());
  std::transform(values.begin(), values.end(), negative.begin(), [](double v) { return -v; });
  const BinRange left_out = largest_sum(negative, least);
  const double around = std::accumulate(values.begin(), values.end(), 0.0) + least;
  if (around <= straight || left_out.count >= values.size()) return inside;
  return {(left_out.first + left_out.count) % values.size(), values.size() - left_out.count};
}

/// The mean share of the classes but one that have pixels.
std::vector<double> shares_of_others(const ClassHistogram& histogram, std::size_t c) {
  std::vector<double> mean(histogram.binning().bins());
  double classes = 0;
  for (std::size_t other = 0; other < histogram.classes(); ++other) {
    if (other == c || histogram.total(other) == 0) continue;
    const std::vector<double> shares = histogram.shares(other);
    for (std::size_t b = 0; b < mean.size(); ++b) mean[b] += shares[b];
    ++classes;
  }
  if (classes > 0)
    for (double& share : mean) share /= classes;
  return mean;
}

double sum_of(const std::vector<double>& values, const BinRange& bins) {
  double sum = 0;
  for (std::size_t i = 0; i < bins.count; ++i) sum += values[(bins.first + i) % values.size()];
  return sum;
}

}  // namespace

ClassHistogram::ClassHistogram(Binning binning, std::size_t classes)
    : binning_(std::move(binning)),
      classes_(classes),
      stride_(binning_.bins() + 3),
      counts_(kCounters * (classes + 1) * stride_) {}

void ClassHistogram::add(const Block& block, const float* values, const std::uint8_t* classes) {
  std::array<std::int32_t, kBlockPixels> bins;
  binning_.find_bins(values, block.size, bins.data());
  std::uint64_t* const counts = counts_.data();
  for_each_weight(block, [&](std::size_t i, std::uint32_t weight) {
    counts[place_of(classes[i], bins[i]) + i % kCounters] += weight;
  });
}

void ClassHistogram::merge(const ClassHistogram& other) {
  for (std::size_t i = 0; i < counts_.size(); ++i) counts_[i] += other.counts_[i];
}

void ClassHistogram::merge(const ClassHistogram& other,
                           const std::vector<std::size_t>& class_here) {
  const std::size_t places = kCounters * stride_;
  for (std::size_t c = 0; c < class_here.size(); ++c)
    for (std::size_t i = 0; i < places; ++i)
      counts_[(class_here[c] + 1) * places + i] += other.counts_[(c + 1) * places + i];
}

std::uint64_t ClassHistogram::total(std::size_t c) const {
  const auto first = counts_.begin() + static_cast<std::ptrdiff_t>(kCounters * (c + 1) * stride_);
  return std::accumulate(first, first + static_cast<std::ptrdiff_t>(kCounters * stride_),
                         std::uint64_t{0});
}

std::vector<double> ClassHistogram::shares(std::size_t c) const {
  std::vector<double> shares(binning_.bins());
  const auto all = static_cast<double>(total(c));
  if (all > 0)
    for (std::size_t b = 0; b < shares.size(); ++b)
      shares[b] = static_cast<double>(count(c, b)) / all;
  return shares;
}

double overlap(const ClassHistogram& histogram, std::size_t a, std::size_t b) {
  const auto all_a = static_cast<double>(histogram.total(a)),
             all_b = static_cast<double>(histogram.total(b));
  if (all_a == 0 || all_b == 0) return 0;
  const std::vector<double> of_a = histogram.shares(a), of_b = histogram.shares(b);
  double common = std::min(static_cast<double>(histogram.beside(a)) / all_a,
                           static_cast<double>(histogram.beside(b)) / all_b);
  for (std::size_t i = 0; i < of_a.size(); ++i) common += std::min(of_a[i], of_b[i]);
  return common;
}

double share_in(const ClassHistogram& histogram, std::size_t c, const BinRange& bins) {
  return sum_of(histogram.shares(c), bins);
}

ClassInterval best_interval(const ClassHistogram& histogram, std::size_t c, bool circle) {
  const std::vector<double> own = histogram.shares(c), others = shares_of_others(histogram, c);
  std::vector<double> gain(own.size());
  for (std::size_t b = 0; b < gain.size(); ++b) gain[b] = own[b] - others[b];
  double sum = 0;
  const BinRange bins = circle ? largest_sum_on_circle(gain) : largest_sum(gain, sum);
  return {bins, sum_of(own, bins), sum_of(others, bins)};
}

}  // namespace chalcedony
