#include "core/tidy/part_counts.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <stdexcept>
#include <utility>

namespace chalcedony {
namespace {

// Of a typical radius, that parts are deeper than their necks: more than rough edges make, and what
// makes a part one for sure.
constexpr double kRough = 0.125, kNarrowNeck = 0.25;
constexpr double kStandsOut = 1.5;  // ratio of the ends of a range
constexpr double kLeastBound = 1;   // pixels

/// The radius at which half of the area of the disks is reached.
double typical_radius(std::vector<double> radii) {
  std::sort(radii.begin(), radii.end());
  double area = 0, reached = 0;
  for (const double radius : radii) area += radius * radius;
  for (const double radius : radii) {
    reached += radius * radius;
    if (2 * reached >= area) return radius;
  }
  return radii.back();
}

std::size_t standing_out(const std::vector<PartCount>& counts, double typical) {
  double widest = kStandsOut;
  std::size_t chosen = 0;
  for (std::size_t i = 0; i < counts.size(); ++i) {
    const double bound = std::max(kLeastBound, (i == 0 ? kNarrowNeck : kRough) * typical);
    const double ratio = (i == 0 ? typical : counts[i].to) / counts[i].above;
    if (counts[i].above > bound || ratio <= widest) continue;
    widest = ratio;
    chosen = i;
  }
  return chosen;
}

}  // namespace

PartCounts part_counts(std::span<const RegionPart> parts) {
  if (parts.empty()) throw std::invalid_argument("no parts to count");
  std::vector<double> radii, deeper{kLeastDeeper};
  for (const RegionPart& part : parts) {
    if (part.neck == 0)
      radii.push_back(part.radius);
    else if (part.deeper() > kLeastDeeper)
      deeper.push_back(part.deeper());
  }
  std::sort(deeper.begin(), deeper.end(), std::greater<>());
  PartCounts counts;
  double to = *std::max_element(radii.begin(), radii.end());
  std::uint64_t regions = radii.size();
  for (const double above : deeper) {
    if (above < to) counts.all.push_back({above, to, regions});
    to = above;
    ++regions;
  }
  counts.chosen = standing_out(counts.all, typical_radius(std::move(radii)));
  return counts;
}

double middle_of(const PartCount& count) {
  const double middle = std::sqrt(count.above * count.to);
  constexpr int kMostDigits = 15;
  for (int digits = 2; digits < kMostDigits; ++digits) {
    const double unit = std::pow(10, std::floor(std::log10(middle)) + 1 - digits);
    // Divided by a whole number where the unit is a fraction, for the nearest decimal number.
    const double steps = std::round(middle / unit);
    const double near = unit < 1 ? steps / std::round(1 / unit) : steps * unit;
    if (count.above < near && near <= count.to) return near;
  }
  return count.to;
}

}  // namespace chalcedony
