// k-means: the k centers with the smallest sum of squared distances to them.
#ifndef CHALCEDONY_CORE_CLUSTER_K_MEANS_H_
#define CHALCEDONY_CORE_CLUSTER_K_MEANS_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/cluster/drawn_points.h"
#include "core/cluster/points.h"
#include "core/cluster/starting_centers.h"

namespace chalcedony {

struct KMeansOptions {
  std::size_t k = 2;
  unsigned restarts = 5;           // runs from different starts; the best is kept
  unsigned most_iterations = 200;  // of a run
  double movement = 1e-4;          // a run ends when no center moves more than this
                                   // part of the standard deviation of all points
  CenterStart start = CenterStart::kSpread;
  std::uint64_t seed = 1;
};

/// One run from one start.
struct KMeansRun {
  double sum_of_squares = 0;  // within groups, weighted
  unsigned iterations = 0;
  bool settled = false;    // ended because the centers stood still
  bool regrouped = false;  // the kept one: regrouping left less than its start had led to
};

struct KMeans {
  Centers centers;
  std::vector<double> weights;  // of each group
  std::size_t best = 0;         // the run they are from
  std::vector<KMeansRun> runs;

  double sum_of_squares() const { return runs[best].sum_of_squares; }
};

/// Moves centers to the means of the points nearest to them until they stand still (Lloyd 1982).
/// A center that loses all its points moves to the point that is farthest from its own center.
///
/// Source    distances are skipped by the bounds of Hamerly (2010), Elkan (2003) and Kanungo et al.
///           (2002), which changes no result
KMeans move_centers(const Points& points, Centers start, const KMeansOptions& options);

/// The groups of one run that goes on with drawn points alone, until centers move less than 20
/// times the limit: what other methods may start from.
///
/// Errors    as starting_centers
Centers rough_groups(const DrawnPoints& points, const KMeansOptions& options);

/// The best of several runs; those from `also` come after those with starts of their own. Each run
/// goes on with the drawn points until its centers move less than 20 times the limit; then all
/// points say which is best. With the drawn points it gets centers where points are far from all,
/// and loses some where groups are alike (by the cost of joining them, Ward 1963), as long as that
/// leaves less; then it goes on with all points until the limit.
///
/// Errors    as starting_centers
KMeans k_means(const DrawnPoints& points, const KMeansOptions& options,
               const std::vector<Centers>& also = {});

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_K_MEANS_H_
