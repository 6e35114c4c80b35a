#include "core/cluster/k_means.h"

#include <mutex>
#include <optional>
#include <utility>

#include "core/cluster/center_mover.h"
#include "core/cluster/regrouping.h"
#include "core/cluster/scatter.h"
#include "core/pixel/pixel_hash.h"

namespace chalcedony {
namespace {

constexpr double kFirstMovement = 20;  // all starts go on until this much more than the limit

/// With drawn points, whose spread or that of all is `deviation`.
MovementLimit first_limit(const KMeansOptions& options, double deviation) {
  return {options.most_iterations, kFirstMovement * options.movement * deviation};
}

/// Centers as all points have them.
CenterMover through_all(const DrawnPoints& points, const Centers& centers, double limit) {
  CenterMover all(points.all(), points.all_runs(), centers);
  all.run(1, limit);
  return all;
}

}  // namespace

KMeans move_centers(const Points& points, Centers start, const KMeansOptions& options) {
  const PointRuns runs(points);
  CenterMover mover(points, runs, std::move(start));
  const Movement movement =
      mover.run(options.most_iterations, options.movement * scatter_of(points).deviation());
  return {mover.centers(),
          mover.weights(),
          0,
          {{mover.sum_of_squares(), movement.iterations, movement.settled, false}}};
}

Centers rough_groups(const DrawnPoints& points, const KMeansOptions& options) {
  return move_through_drawn(
             points, starting_centers(points, options.k, options.start, mixed_bits(options.seed)),
             first_limit(options, scatter_of(points.drawn()).deviation()))
      .centers;
}

KMeans k_means(const DrawnPoints& points, const KMeansOptions& options,
               const std::vector<Centers>& also) {
  const Scatter scatter = scatter_of(points.all());
  const double limit = options.movement * scatter.deviation();
  const MovementLimit first = first_limit(options, scatter.deviation());
  KMeans out;
  out.runs.resize(options.restarts + also.size());
  std::optional<CenterMover> best;
  DrawnGroups best_drawn;
  std::mutex one_at_a_time;
  for_each_start(out.runs.size(), [&](std::size_t r) {
    DrawnGroups drawn = move_through_drawn(
        points,
        r < options.restarts
            ? starting_centers(points, options.k, options.start, mixed_bits(options.seed) + r)
            : also[r - options.restarts],
        first);
    CenterMover all = through_all(points, drawn.centers, limit);
    const double sum_of_squares = all.sum_of_squares(scatter);
    const std::lock_guard lock(one_at_a_time);
    out.runs[r] = {sum_of_squares, drawn.movement.iterations, drawn.movement.settled, false};
    // The first of those that are equally good, whichever came first.
    if (best && std::pair(sum_of_squares, r) > std::pair(out.sum_of_squares(), out.best)) return;
    best.emplace(std::move(all));
    best_drawn = std::move(drawn);
    out.best = r;
  });
  KMeansRun& kept = out.runs[out.best];
  if (options.k > 1 && kept.settled) {
    const DrawnGroups found = regrouped(points, best_drawn, first, mixed_bits(options.seed + 1));
    if (found.sum_of_squares < best_drawn.sum_of_squares) {
      CenterMover all = through_all(points, found.centers, limit);
      kept.regrouped = all.sum_of_squares(scatter) < kept.sum_of_squares;
      if (kept.regrouped) best.emplace(std::move(all));
    }
  }
  const Movement rest = best->run(options.most_iterations - kept.iterations, limit);
  kept.sum_of_squares = best->sum_of_squares();
  kept.iterations += rest.iterations;
  kept.settled = rest.settled;
  out.centers = best->centers();
  out.weights = best->weights();
  return out;
}

}  // namespace chalcedony
