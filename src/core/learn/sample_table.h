// The sample pixels of all classes, gathered picture by picture.
#ifndef CHALCEDONY_CORE_LEARN_SAMPLE_TABLE_H_
#define CHALCEDONY_CORE_LEARN_SAMPLE_TABLE_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/learn/class_samples.h"
#include "core/learn/class_statistics.h"

namespace chalcedony {

/// The most distinct rows that are held.
inline constexpr std::size_t kMostHeldRows = 1048576;

/// Sample pixels by class. Equal rows are held once, so samples of 8-bit pictures take little
/// room however large they are. Of more than `most` distinct rows those with the smallest hashes
/// stay, each with all its pixels: which ones these are depends on nothing but the rows.
class SampleTable {
 public:
  explicit SampleTable(std::size_t features, std::size_t most = kMostHeldRows);

  std::size_t features() const { return features_; }
  std::size_t classes() const { return classes_.size(); }

  /// Adds a pixel (or `count` like it) to a class, which is made when it is new.
  ///
  /// Shape     `row`: a finite number for each feature, not divided
  void add(std::size_t sample_class, const float* row, std::uint64_t count = 1);
  /// Adds all pixels of another table; its class c is our class `class_of[c]`.
  void add(const SampleTable& other, const std::vector<std::size_t>& class_of);
  /// Joins equal rows and drops what is too many. Call before reading, after the last add().
  void join_equal_rows();

  /// The rows of a class, sorted; none of a class that was never added to.
  const ClassSamples& of(std::size_t sample_class) const;
  /// The pixels added to a class, those of dropped rows included.
  std::uint64_t added(std::size_t sample_class) const;
  /// Whether there were too many rows to hold all.
  bool drawn() const { return hash_limit_ != ~std::uint64_t{0}; }
  std::size_t rows() const;

  /// Count, mean, covariance and range of the rows held of a class.
  ClassStatistics statistics(std::size_t sample_class) const;

 private:
  void grow_to(std::size_t sample_class);
  /// The hash of the last row that stays when there are too many.
  std::uint64_t hash_of_last() const;
  void drop_above(std::uint64_t hash_limit);

  std::size_t features_;
  std::size_t most_;
  std::vector<ClassSamples> classes_;
  std::vector<std::uint64_t> added_;
  std::size_t rows_when_joined_ = 0;
  std::uint64_t hash_limit_ = ~std::uint64_t{0};  // rows with larger hashes are dropped
};

/// The same samples without pixels that lie more than `deviations` robust standard deviations from
/// the median of their class in any feature.
///
/// Source    1.4826 times the median absolute deviation estimates the standard deviation of normal
///           values (Hampel 1974); a feature in which that is 0 leaves nothing out
SampleTable trimmed(const SampleTable& samples, double deviations);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_SAMPLE_TABLE_H_
