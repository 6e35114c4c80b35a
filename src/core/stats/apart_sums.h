// Sums in which neighbors are kept apart, so that vectors of any length add in one order.
#ifndef CHALCEDONY_CORE_STATS_APART_SUMS_H_
#define CHALCEDONY_CORE_STATS_APART_SUMS_H_

#include <array>
#include <cstddef>

namespace chalcedony {

/// Values so far from one another are added up together, others apart.
inline constexpr std::size_t kSumsApart = 8;

using ApartSums = std::array<double, kSumsApart>;

/// n rounded up to whole ApartSums; kPlanePadding is a multiple of them.
constexpr std::size_t whole_sums(std::size_t n) {
  return (n + kSumsApart - 1) / kSumsApart * kSumsApart;
}

/// All of them, the first one first.
inline double total(const ApartSums& sums) {
  double all = 0;
  for (const double sum : sums) all += sum;
  return all;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_APART_SUMS_H_
