// Points to find starts with: of many some, drawn by their pixels.
#ifndef CHALCEDONY_CORE_CLUSTER_DRAWN_POINTS_H_
#define CHALCEDONY_CORE_CLUSTER_DRAWN_POINTS_H_

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/cluster/point_runs.h"
#include "core/cluster/points.h"

namespace chalcedony {

/// How many points are enough to find starts with, whatever the number of groups.
inline constexpr std::size_t kDrawnPoints = 32768;

/// How many are enough for so many groups: 2,048 for each.
inline std::size_t points_for_groups(std::size_t groups) {
  constexpr std::size_t kForEach = 2048;
  return std::min(kDrawnPoints, kForEach * groups);
}

/// All points, and those to find starts with: all of them, or when there are more than `most`, as
/// many drawn by weight, each for as many pixels as the others.
class DrawnPoints {
 public:
  DrawnPoints(const DrawnPoints&) = delete;
  DrawnPoints& operator=(const DrawnPoints&) = delete;

  /// The numbers of `points` must outlive this.
  DrawnPoints(const Points& points, std::uint64_t seed, std::size_t most = kDrawnPoints);

  const Points& all() const { return all_; }
  const PointRuns& all_runs() const { return all_runs_; }
  const Points& drawn() const { return drawn_; }
  const PointRuns& drawn_runs() const { return drawn_runs_ ? *drawn_runs_ : all_runs_; }

 private:
  Points all_, drawn_;
  PointRuns all_runs_;
  std::optional<PointRuns> drawn_runs_;  // where not all are drawn
  std::vector<double> weights_;
  std::vector<std::vector<float>> features_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_DRAWN_POINTS_H_
