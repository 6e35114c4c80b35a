// The error matrix of a class map against a reference, and what follows from it.
#ifndef CHALCEDONY_CORE_ASSESS_ERROR_MATRIX_H_
#define CHALCEDONY_CORE_ASSESS_ERROR_MATRIX_H_

#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

namespace chalcedony {

/// Counts of pixels: rows are what the map says, columns what the reference says. There may be
/// more rows than columns (unclassified is a row of its own).
class ErrorMatrix {
 public:
  ErrorMatrix(std::size_t map_classes, std::size_t reference_classes);

  void add(std::size_t map_class, std::size_t reference_class, std::uint64_t count = 1) {
    counts_[map_class * columns_ + reference_class] += count;
  }
  void merge(const ErrorMatrix& other);

  std::size_t rows() const { return rows_; }
  std::size_t columns() const { return columns_; }
  std::uint64_t at(std::size_t map_class, std::size_t reference_class) const {
    return counts_[map_class * columns_ + reference_class];
  }
  std::uint64_t total() const;
  std::uint64_t row_total(std::size_t map_class) const;
  std::uint64_t column_total(std::size_t reference_class) const;

  /// Share of the pixels on the diagonal, 0-1. Nothing for an empty matrix.
  std::optional<double> overall() const;
  /// Share of a reference class that the map has right (1 - omission).
  std::optional<double> producers(std::size_t reference_class) const;
  /// Share of a map class that is right (1 - commission).
  std::optional<double> users(std::size_t map_class) const;
  /// Agreement beyond what the totals alone would give: Cohen's kappa. Nothing when the totals
  /// leave no room for disagreement.
  ///
  /// Source    Cohen (1960); Congalton (1991), whose matrix is in error_matrix_test.cc
  std::optional<double> kappa() const;

 private:
  std::size_t rows_;
  std::size_t columns_;
  std::vector<std::uint64_t> counts_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_ERROR_MATRIX_H_
