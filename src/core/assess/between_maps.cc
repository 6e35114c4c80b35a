#include "core/assess/between_maps.h"

#include <algorithm>
#include <cmath>

#include "core/stats/student_distribution.h"

namespace chalcedony {
namespace {

/// What of a map counts, of all of it that could.
struct Part {
  double counts = 0, of = 0;
};

std::optional<BetweenMaps> share_between(const std::vector<Part>& parts, double level,
                                         Interval range) {
  BetweenMaps out;
  double counts = 0, all = 0;
  for (const Part& part : parts) {
    out.maps += part.of > 0;
    counts += part.counts;
    all += part.of;
  }
  if (out.maps < 2) return std::nullopt;
  out.share = counts / all;
  double squares = 0;
  for (const Part& part : parts) {
    const double off = part.counts - out.share * part.of;
    squares += off * off;
  }
  // Maps that do not differ but for rounding.
  if (squares <= 1e-20 * all * all) return std::nullopt;
  const double m = static_cast<double>(out.maps);
  out.standard_error = std::sqrt(m / (m - 1) * squares) / all;
  const double half = student_t(level, m - 1) * out.standard_error;
  out.interval = {std::max(range.low, out.share - half), std::min(range.high, out.share + half)};
  return out;
}

}  // namespace

std::optional<BetweenMaps> between_maps(const std::vector<MapScore>& maps, double level) {
  std::vector<Part> parts;
  for (const MapScore& map : maps)
    parts.push_back({static_cast<double>(map.right), static_cast<double>(map.assessed)});
  return share_between(parts, level, {0, 1});
}

std::optional<BetweenMaps> gain_between_maps(const std::vector<MapScore>& first,
                                             const std::vector<MapScore>& second, double level) {
  std::vector<Part> parts;
  for (std::size_t i = 0; i < first.size(); ++i)
    parts.push_back({static_cast<double>(second[i].right) - static_cast<double>(first[i].right),
                     static_cast<double>(first[i].assessed)});
  return share_between(parts, level, {-1, 1});
}

}  // namespace chalcedony
