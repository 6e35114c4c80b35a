#include "core/stats/share_of_units.h"

#include <algorithm>
#include <cmath>

#include "core/stats/student_distribution.h"

namespace chalcedony {
namespace {

/// What of a unit counts, which may be less than nothing, of all of it that could.
struct Counting {
  double counts = 0, of = 0;
};

std::optional<ShareOfUnits> share_among(const std::vector<Counting>& units, double level,
                                        Interval range) {
  ShareOfUnits out;
  double counts = 0, all = 0;
  for (const Counting& unit : units) {
    out.units += unit.of > 0;
    counts += unit.counts;
    all += unit.of;
  }
  if (out.units < 2) return std::nullopt;
  out.share = counts / all;
  double squares = 0;
  for (const Counting& unit : units) {
    const double off = unit.counts - out.share * unit.of;
    squares += off * off;
  }
  // Units that do not differ but for rounding.
  if (squares <= 1e-20 * all * all) return std::nullopt;
  const double m = static_cast<double>(out.units);
  out.standard_error = std::sqrt(m / (m - 1) * squares) / all;
  const double half = student_t(level, m - 1) * out.standard_error;
  out.interval = {std::max(range.low, out.share - half), std::min(range.high, out.share + half)};
  return out;
}

}  // namespace

std::optional<ShareOfUnits> share_of_units(const std::vector<UnitPart>& units, double level) {
  std::vector<Counting> counting;
  for (const UnitPart& unit : units)
    counting.push_back({static_cast<double>(unit.part), static_cast<double>(unit.whole)});
  return share_among(counting, level, {0, 1});
}

std::optional<ShareOfUnits> gain_of_units(const std::vector<UnitPart>& first,
                                          const std::vector<UnitPart>& second, double level) {
  std::vector<Counting> counting;
  for (std::size_t i = 0; i < first.size(); ++i)
    counting.push_back({static_cast<double>(second[i].part) - static_cast<double>(first[i].part),
                        static_cast<double>(first[i].whole)});
  return share_among(counting, level, {-1, 1});
}

}  // namespace chalcedony
