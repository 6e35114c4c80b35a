#include "core/assess/error_matrix.h"

#include <algorithm>
#include <numeric>

namespace chalcedony {
namespace {

std::optional<double> share(std::uint64_t part, std::uint64_t whole) {
  if (whole == 0) return std::nullopt;
  return static_cast<double>(part) / static_cast<double>(whole);
}

}  // namespace

ErrorMatrix::ErrorMatrix(std::size_t map_classes, std::size_t reference_classes)
    : rows_(map_classes), columns_(reference_classes), counts_(map_classes * reference_classes) {}

void ErrorMatrix::merge(const ErrorMatrix& other) {
  for (std::size_t i = 0; i < counts_.size(); ++i) counts_[i] += other.counts_[i];
}

std::uint64_t ErrorMatrix::total() const {
  return std::accumulate(counts_.begin(), counts_.end(), std::uint64_t{0});
}

std::uint64_t ErrorMatrix::row_total(std::size_t map_class) const {
  const auto row = counts_.begin() + static_cast<std::ptrdiff_t>(map_class * columns_);
  return std::accumulate(row, row + static_cast<std::ptrdiff_t>(columns_), std::uint64_t{0});
}

std::uint64_t ErrorMatrix::column_total(std::size_t reference_class) const {
  std::uint64_t sum = 0;
  for (std::size_t r = 0; r < rows_; ++r) sum += at(r, reference_class);
  return sum;
}

std::optional<double> ErrorMatrix::overall() const {
  std::uint64_t right = 0;
  for (std::size_t c = 0; c < std::min(rows_, columns_); ++c) right += at(c, c);
  return share(right, total());
}

std::optional<double> ErrorMatrix::producers(std::size_t reference_class) const {
  return share(at(reference_class, reference_class), column_total(reference_class));
}

std::optional<double> ErrorMatrix::users(std::size_t map_class) const {
  return share(map_class < columns_ ? at(map_class, map_class) : 0, row_total(map_class));
}

std::optional<double> ErrorMatrix::kappa() const {
  const auto observed = overall();
  if (!observed) return std::nullopt;
  const double n = static_cast<double>(total());
  double chance = 0;
  for (std::size_t c = 0; c < std::min(rows_, columns_); ++c)
    chance += static_cast<double>(row_total(c)) / n * (static_cast<double>(column_total(c)) / n);
  if (chance >= 1) return std::nullopt;
  return (*observed - chance) / (1 - chance);
}

}  // namespace chalcedony
