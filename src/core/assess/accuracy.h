// What follows from an error matrix: accuracies with intervals, kappa, disagreement.
#ifndef CHALCEDONY_CORE_ASSESS_ACCURACY_H_
#define CHALCEDONY_CORE_ASSESS_ACCURACY_H_

#include <cstdint>
#include <optional>
#include <vector>

#include "core/assess/error_matrix.h"
#include "core/stats/normal_distribution.h"

namespace chalcedony {

/// Agreement beyond what the totals alone would give.
struct Kappa {
  double value = 0;
  double variance = 0;  // of the estimate, for a simple random sample
  Interval interval;
};

/// One class. Shares are 0-1; what would divide by nothing is absent.
struct ClassAccuracy {
  std::uint64_t mapped = 0;     // pixels the map calls so
  std::uint64_t reference = 0;  // pixels that are so
  std::uint64_t agreed = 0;
  std::optional<double> users;  // agreed / mapped: precision, 1 - commission
  std::optional<Interval> users_interval;
  std::optional<double> producers;  // agreed / reference: recall, 1 - omission
  std::optional<Interval> producers_interval;
  std::optional<double> f1;            // harmonic mean of the two
  std::optional<double> intersection;  // agreed / pixels that either calls so
  std::optional<double> kappa_users;   // conditional kappa of the row, and of the column
  std::optional<double> kappa_producers;
};

struct Accuracy {
  std::uint64_t total = 0;
  std::optional<double> overall;
  std::optional<Interval> overall_interval;
  std::optional<Kappa> kappa;
  /// The two parts of 1 - overall: classes of the wrong size, and pixels in the wrong place.
  double quantity_disagreement = 0;
  double allocation_disagreement = 0;
  std::vector<ClassAccuracy> classes;  // one for each column of the matrix
};

/// Rows beyond the columns (unclassified) count as classes the reference never has.
///
/// Range     0 < level < 1, of the intervals
/// Source    shares: Congalton (1991); intervals: wilson_interval; kappa: Cohen (1960), its
///           variance by the delta method, Fleiss, Cohen and Everitt (1969), as in Congalton and
///           Green (2009), 5.4; conditional kappa: the same, 5.5; disagreement: Pontius and
///           Millones (2011)
Accuracy accuracy_of(const ErrorMatrix& matrix, double level);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_ACCURACY_H_
