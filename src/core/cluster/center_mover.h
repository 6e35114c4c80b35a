// Centers that move through points: the step of Lloyd's (1982), again and again.
#ifndef CHALCEDONY_CORE_CLUSTER_CENTER_MOVER_H_
#define CHALCEDONY_CORE_CLUSTER_CENTER_MOVER_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <utility>
#include <vector>

#include "core/cluster/centers.h"
#include "core/cluster/point_runs.h"
#include "core/cluster/points.h"
#include "core/cluster/scatter.h"

namespace chalcedony {

/// How centers came to rest.
struct Movement {
  unsigned iterations = 0;
  bool settled = false;  // the centers stood still
};

/// A center that may be the nearest of some points, and its number.
struct Candidate {
  const double* center = nullptr;
  double number = 0;
};

/// Moves up to 255 centers. A center that loses all its points moves to the point that is farthest
/// from its own center.
///
/// Source    distances are skipped by the bounds of Hamerly (2010), Elkan (2003) and Kanungo et al.
///           (2002), which changes no result
class CenterMover {
 public:
  /// `runs`: of the points. Both must outlive this.
  CenterMover(const Points& points, const PointRuns& runs, Centers start);

  /// Gives every point to its nearest center and moves those to the means, at least once and until
  /// none goes farther than the limit. The sum of squares is left to who asks for it.
  Movement run(unsigned most_iterations, double limit);

  const Centers& centers() const { return centers_; }
  /// Of the points of each center.
  std::vector<double> weights() const;

  /// Within groups, point by point.
  double sum_of_squares() const;
  /// The same from the scatter of all points, in no time: what is not within the groups is between
  /// them, once the centers have been moved. Less exact where next to nothing is within.
  double sum_of_squares(const Scatter& all) const;

 private:
  /// Sums of features and weights for each center.
  using Sums = std::vector<double>;

  /// Bounds on distances of a run, when all its points belong to one center.
  struct RunBounds {
    bool one_center = false;
    double above = 0;  // to that center, of all its points
    double below = 0;  // to any other center
  };

  /// Room for one run.
  struct Scratch {
    std::vector<float> values;  // of a run that must be filled up
    std::vector<const float*> features;
    std::vector<double> squares;  // distances of the middle to all centers
    std::vector<Candidate> candidates;
    std::array<std::uint8_t, kRunPoints> numbers{};
  };

  const double* center(std::size_t c) const { return centers_.data() + c * dimensions_; }
  void add(Sums& sums, std::size_t to_center, std::size_t i, double weight) const;
  void measure_centers();
  void widen_bounds();
  void assign();
  void assign_run(std::size_t begin, std::size_t size, Scratch& scratch, Sums& sums);
  std::pair<double, double> find_candidates(const double* middle, double radius,
                                            Scratch& scratch) const;
  void take_whole(std::size_t begin, std::size_t size, std::uint8_t number, Scratch& scratch,
                  Sums& sums);
  void take_labels(std::size_t begin, std::size_t size, const std::uint8_t* now, Sums& sums);
  void load_run(std::size_t begin, std::size_t size, Scratch& scratch) const;
  std::vector<double> move();
  double move_to_farthest(std::size_t lost);

  const Points& points_;
  const PointRuns& runs_;
  std::size_t dimensions_, k_;
  Centers centers_;
  std::vector<std::uint8_t> label_;
  std::vector<RunBounds> bounds_;   // of each run
  std::vector<double> moves_;       // how far each center went since the points were assigned
  std::vector<double> half_way_;    // half the way to the nearest other center
  std::vector<double> by_feature_;  // the centers, filled up
  Sums sums_;
  bool assigned_ = false;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_CENTER_MOVER_H_
