#include "core/assess/accuracy.h"

#include <algorithm>
#include <cmath>

#include "core/stats/proportion.h"

namespace chalcedony {
namespace {

/// Row and column totals as shares of all pixels; the shorter list is filled up with 0.
struct Margins {
  std::vector<double> row, column;
  double n = 0;

  explicit Margins(const ErrorMatrix& matrix) : n(static_cast<double>(matrix.total())) {
    const std::size_t size = std::max(matrix.rows(), matrix.columns());
    row.resize(size);
    column.resize(size);
    for (std::size_t r = 0; r < matrix.rows(); ++r)
      row[r] = static_cast<double>(matrix.row_total(r)) / n;
    for (std::size_t c = 0; c < matrix.columns(); ++c)
      column[c] = static_cast<double>(matrix.column_total(c)) / n;
  }
};

double cell(const ErrorMatrix& matrix, const Margins& margins, std::size_t r, std::size_t c) {
  if (r >= matrix.rows() || c >= matrix.columns()) return 0;
  return static_cast<double>(matrix.at(r, c)) / margins.n;
}

/// The delta method, with the names of Congalton and Green: t1 is the overall agreement, t2 that
/// by chance, t3 and t4 weight the cells by the totals they lie under.
double kappa_variance(const ErrorMatrix& matrix, const Margins& margins) {
  const std::size_t size = margins.row.size();
  double t1 = 0, t2 = 0, t3 = 0, t4 = 0;
  for (std::size_t i = 0; i < size; ++i) {
    const double agreed = cell(matrix, margins, i, i);
    t1 += agreed;
    t2 += margins.row[i] * margins.column[i];
    t3 += agreed * (margins.row[i] + margins.column[i]);
    for (std::size_t j = 0; j < size; ++j) {
      const double totals = margins.row[j] + margins.column[i];
      t4 += cell(matrix, margins, i, j) * totals * totals;
    }
  }
  const double wrong = 1 - t1, room = 1 - t2;
  return (t1 * wrong / (room * room) + 2 * wrong * (2 * t1 * t2 - t3) / (room * room * room) +
          wrong * wrong * (t4 - 4 * t2 * t2) / (room * room * room * room)) /
         margins.n;
}

std::optional<Kappa> kappa_of(const ErrorMatrix& matrix, const Margins& margins, double level) {
  const auto value = matrix.kappa();
  if (!value) return std::nullopt;
  Kappa kappa{*value, std::max(0.0, kappa_variance(matrix, margins)), {}};
  const double half = normal_z(level) * std::sqrt(kappa.variance);
  kappa.interval = {std::max(-1.0, kappa.value - half), std::min(1.0, kappa.value + half)};
  return kappa;
}

/// (agreed - chance) / (whole - chance), the kappa of one row or column.
std::optional<double> conditional_kappa(double agreed, double whole, double other) {
  const double chance = whole * other;
  if (!(whole - chance > 0)) return std::nullopt;
  return (agreed - chance) / (whole - chance);
}

std::optional<double> ratio(std::uint64_t part, std::uint64_t whole) {
  if (whole == 0) return std::nullopt;
  return static_cast<double>(part) / static_cast<double>(whole);
}

ClassAccuracy class_accuracy(const ErrorMatrix& matrix, const Margins& margins, std::size_t c,
                             double level) {
  ClassAccuracy one;
  one.mapped = c < matrix.rows() ? matrix.row_total(c) : 0;
  one.reference = matrix.column_total(c);
  one.agreed = c < matrix.rows() ? matrix.at(c, c) : 0;
  one.users = ratio(one.agreed, one.mapped);
  one.users_interval = wilson_interval(one.agreed, one.mapped, level);
  one.producers = ratio(one.agreed, one.reference);
  one.producers_interval = wilson_interval(one.agreed, one.reference, level);
  one.f1 = ratio(2 * one.agreed, one.mapped + one.reference);
  one.intersection = ratio(one.agreed, one.mapped + one.reference - one.agreed);
  const double agreed = cell(matrix, margins, c, c);
  one.kappa_users = conditional_kappa(agreed, margins.row[c], margins.column[c]);
  one.kappa_producers = conditional_kappa(agreed, margins.column[c], margins.row[c]);
  return one;
}

}  // namespace

Accuracy accuracy_of(const ErrorMatrix& matrix, double level) {
  Accuracy out;
  out.total = matrix.total();
  out.classes.resize(matrix.columns());
  if (out.total == 0) return out;
  const Margins margins(matrix);
  std::uint64_t agreed = 0;
  for (std::size_t c = 0; c < matrix.columns(); ++c) {
    out.classes[c] = class_accuracy(matrix, margins, c, level);
    agreed += out.classes[c].agreed;
  }
  out.overall = matrix.overall();
  out.overall_interval = wilson_interval(agreed, out.total, level);
  out.kappa = kappa_of(matrix, margins, level);
  for (std::size_t i = 0; i < margins.row.size(); ++i) {
    const double both = cell(matrix, margins, i, i);
    out.quantity_disagreement += std::abs(margins.row[i] - margins.column[i]) / 2;
    out.allocation_disagreement += std::min(margins.row[i] - both, margins.column[i] - both);
  }
  return out;
}

}  // namespace chalcedony
