#include "core/learn/sample_table.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <numeric>
#include <utility>

#include "core/pixel/pixel_hash.h"

namespace chalcedony {
namespace {

std::uint64_t hash_of(const float* row, std::size_t features) {
  std::uint64_t hash = 0;
  for (std::size_t f = 0; f < features; ++f)
    hash = mixed_bits(hash ^ std::bit_cast<std::uint32_t>(row[f]));
  return hash;
}

/// Sorts the rows of a class and makes equal ones one.
void join_rows(ClassSamples& samples) {
  const std::size_t d = samples.features;
  const auto before = [&](std::size_t a, std::size_t b) {
    return std::lexicographical_compare(samples.row(a), samples.row(a) + d, samples.row(b),
                                        samples.row(b) + d);
  };
  std::vector<std::size_t> order(samples.rows());
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::sort(order.begin(), order.end(), before);
  ClassSamples joined{d, {}, {}};
  joined.values.reserve(samples.values.size());
  for (const std::size_t i : order) {
    const float* const row = samples.row(i);
    if (joined.rows() > 0 && std::equal(row, row + d, joined.row(joined.rows() - 1))) {
      joined.counts.back() += samples.counts[i];
    } else {
      joined.values.insert(joined.values.end(), row, row + d);
      joined.counts.push_back(samples.counts[i]);
    }
  }
  samples = std::move(joined);
}

/// The value with half of the pixels at or below it.
double median_of(std::vector<std::pair<double, std::uint64_t>> values) {
  std::sort(values.begin(), values.end());
  std::uint64_t all = 0, below = 0;
  for (const auto& [value, count] : values) all += count;
  for (const auto& [value, count] : values)
    if ((below += count) * 2 >= all) return value;
  return 0;
}

struct Middle {
  double median = 0;
  double spread = 0;  // robust standard deviation
};

Middle middle_of(const ClassSamples& samples, std::size_t feature) {
  std::vector<std::pair<double, std::uint64_t>> values;
  for (std::size_t i = 0; i < samples.rows(); ++i)
    values.emplace_back(samples.row(i)[feature], samples.counts[i]);
  Middle out;
  out.median = median_of(values);
  for (auto& [value, count] : values) value = std::abs(value - out.median);
  constexpr double kNormal = 1.4826;
  out.spread = kNormal * median_of(std::move(values));
  return out;
}

}  // namespace

SampleTable::SampleTable(std::size_t features, std::size_t most)
    : features_(features), most_(most) {}

void SampleTable::grow_to(std::size_t sample_class) {
  while (classes_.size() <= sample_class) {
    classes_.push_back({features_, {}, {}});
    added_.push_back(0);
  }
}

void SampleTable::add(std::size_t sample_class, const float* row, std::uint64_t count) {
  grow_to(sample_class);
  added_[sample_class] += count;
  if (hash_of(row, features_) > hash_limit_) return;
  ClassSamples& samples = classes_[sample_class];
  // Neighbors in a picture are often alike.
  if (samples.rows() > 0 && std::equal(row, row + features_, samples.row(samples.rows() - 1))) {
    samples.counts.back() += count;
    return;
  }
  samples.values.insert(samples.values.end(), row, row + features_);
  samples.counts.push_back(count);
}

void SampleTable::add(const SampleTable& other, const std::vector<std::size_t>& class_of) {
  for (std::size_t c = 0; c < other.classes(); ++c) {
    const ClassSamples& samples = other.classes_[c];
    for (std::size_t i = 0; i < samples.rows(); ++i)
      add(class_of[c], samples.row(i), samples.counts[i]);
    if (other.added_[c] > 0) added_[class_of[c]] += other.added_[c] - samples.pixels();
  }
  if (other.hash_limit_ < hash_limit_) drop_above(other.hash_limit_);
  constexpr std::size_t kFew = 65536;
  if (rows() > 2 * rows_when_joined_ + kFew) join_equal_rows();
}

void SampleTable::join_equal_rows() {
  for (ClassSamples& samples : classes_) join_rows(samples);
  if (rows() > most_) drop_above(hash_of_last());
  rows_when_joined_ = rows();
}

std::uint64_t SampleTable::hash_of_last() const {
  std::vector<std::uint64_t> hashes;
  for (const ClassSamples& samples : classes_)
    for (std::size_t i = 0; i < samples.rows(); ++i)
      hashes.push_back(hash_of(samples.row(i), features_));
  const auto last = hashes.begin() + static_cast<std::ptrdiff_t>(most_ - 1);
  std::nth_element(hashes.begin(), last, hashes.end());
  return *last;
}

void SampleTable::drop_above(std::uint64_t hash_limit) {
  hash_limit_ = hash_limit;
  for (ClassSamples& samples : classes_) {
    ClassSamples kept{features_, {}, {}};
    for (std::size_t i = 0; i < samples.rows(); ++i) {
      if (hash_of(samples.row(i), features_) > hash_limit_) continue;
      kept.values.insert(kept.values.end(), samples.row(i), samples.row(i) + features_);
      kept.counts.push_back(samples.counts[i]);
    }
    samples = std::move(kept);
  }
}

const ClassSamples& SampleTable::of(std::size_t sample_class) const {
  static const ClassSamples none;
  return sample_class < classes_.size() ? classes_[sample_class] : none;
}

std::uint64_t SampleTable::added(std::size_t sample_class) const {
  return sample_class < added_.size() ? added_[sample_class] : 0;
}

std::size_t SampleTable::rows() const {
  std::size_t sum = 0;
  for (const ClassSamples& samples : classes_) sum += samples.rows();
  return sum;
}

ClassStatistics SampleTable::statistics(std::size_t sample_class) const {
  ClassSums sums(features_);
  const ClassSamples& samples = of(sample_class);
  std::vector<double> row(features_);
  for (std::size_t i = 0; i < samples.rows(); ++i) {
    std::copy_n(samples.row(i), features_, row.begin());
    sums.add(row.data(), samples.counts[i]);
  }
  return sums.statistics();
}

SampleTable trimmed(const SampleTable& samples, double deviations) {
  SampleTable out(samples.features());
  for (std::size_t c = 0; c < samples.classes(); ++c) {
    const ClassSamples& all = samples.of(c);
    std::vector<Middle> middles;
    for (std::size_t f = 0; f < all.features; ++f) middles.push_back(middle_of(all, f));
    for (std::size_t i = 0; i < all.rows(); ++i) {
      bool near = true;
      for (std::size_t f = 0; f < all.features; ++f)
        near = near && (middles[f].spread == 0 || std::abs(all.row(i)[f] - middles[f].median) <=
                                                      deviations * middles[f].spread);
      if (near) out.add(c, all.row(i), all.counts[i]);
    }
  }
  out.join_equal_rows();
  return out;
}

}  // namespace chalcedony
