// Whether one of two maps of the same place is better, held against one reference.
#ifndef CHALCEDONY_CORE_ASSESS_MAP_COMPARISON_H_
#define CHALCEDONY_CORE_ASSESS_MAP_COMPARISON_H_

#include <cstdint>
#include <optional>

#include "core/assess/accuracy.h"

namespace chalcedony {

/// A test statistic and the probability of one at least as large when the maps are equally good.
struct TestResult {
  double statistic = 0;
  double p = 1;
};

/// The difference of two kappas in standard errors, as of two independent samples. Nothing when
/// both variances are 0.
///
/// Source    Congalton and Green (2009), 5.4
std::optional<TestResult> kappa_difference(const Kappa& first, const Kappa& second);

/// McNemar's test for two maps judged on the same pixels: `only_first` are the pixels that only the
/// first map has right. The statistic is chi-square with one degree of freedom, without continuity
/// correction; below 25 such pixels p is that of the exact binomial test. Nothing when no pixel
/// tells the maps apart.
///
/// Source    McNemar (1947), Psychometrika 12; Foody (2004) for maps
std::optional<TestResult> mcnemar(std::uint64_t only_first, std::uint64_t only_second);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_MAP_COMPARISON_H_
