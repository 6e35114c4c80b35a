// Points are looked at in runs, which lie in a ball each. A run whose points all belong to one
// center keeps an upper bound on their distances to it and a lower bound on those to all others
// (Hamerly 2010). As long as the first is below the second, or below half the way to the nearest
// other center, nothing can change and nothing is computed. Else only centers are looked at that
// can be nearest to some place in the ball; when that is one, it gets the run as a whole (Kanungo
// et al. 2002).
#include "core/cluster/k_means.h"

#include <array>
#include <cmath>
#include <cstring>
#include <mutex>
#include <optional>
#include <utility>

#include "core/cluster/label_stretches.h"
#include "core/cluster/point_runs.h"
#include "core/cluster/point_sums.h"
#include "core/cluster/scatter.h"
#include "core/stats/pixel_hash.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cluster/k_means.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/cluster/double_math-inl.h"

#ifndef CHALCEDONY_CORE_CLUSTER_K_MEANS_CC_
#define CHALCEDONY_CORE_CLUSTER_K_MEANS_CC_
namespace chalcedony {
/// A center that may be the nearest of some points, and its number.
struct Candidate {
  const double* center = nullptr;
  double number = 0;
};
struct SquaredBounds {
  double farthest = 0;        // to the nearest center
  double nearest_second = 0;  // to a second nearest one
};
}  // namespace chalcedony
#endif

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// Points i, i + 1, ... of three features, which are read once for all centers.
template <class D>
class ThreeFeatures {
 public:
  ThreeFeatures(D d, const float* const* features, std::size_t, std::size_t i)
      : d_(d),
        first_(feature_of(d, features, 0, i)),
        second_(feature_of(d, features, 1, i)),
        third_(feature_of(d, features, 2, i)) {}

  HWY_INLINE hn::Vec<D> squared_distances_to(const double* center) const {
    const auto x = hn::Sub(first_, hn::Set(d_, center[0]));
    const auto y = hn::Sub(second_, hn::Set(d_, center[1]));
    const auto z = hn::Sub(third_, hn::Set(d_, center[2]));
    return multiply_add(z, z, multiply_add(y, y, hn::Mul(x, x)));
  }

 private:
  D d_;
  hn::Vec<D> first_, second_, third_;
};

// The same of any number of features.
template <class D>
class AllFeatures {
 public:
  AllFeatures(D d, const float* const* features, std::size_t dimensions, std::size_t i)
      : d_(d), features_(features), dimensions_(dimensions), i_(i) {}

  HWY_INLINE hn::Vec<D> squared_distances_to(const double* center) const {
    return squared_distances(d_, features_, dimensions_, center, i_);
  }

 private:
  D d_;
  const float* const* features_;
  std::size_t dimensions_, i_;
};

template <template <class> class Features>
HWY_INLINE SquaredBounds nearest_by(const float* const* features, std::size_t dimensions,
                                    const std::vector<Candidate>& candidates, std::size_t n,
                                    std::uint8_t* numbers) {
  const hn::CappedTag<double, 8> d;
  const hn::Rebind<std::int32_t, decltype(d)> di;
  const hn::Rebind<std::uint8_t, decltype(d)> d8;
  auto farthest = hn::Zero(d), nearest_second = hn::Set(d, 1e60);
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    const Features<hn::CappedTag<double, 8>> points(d, features, dimensions, i);
    auto best = hn::Set(d, 1e60), second = best, at = hn::Zero(d);
    for (const Candidate& candidate : candidates) {
      const auto sum = points.squared_distances_to(candidate.center);
      const auto better = hn::Lt(sum, best);
      second = hn::IfThenElse(better, best, hn::Min(second, sum));
      best = hn::IfThenElse(better, sum, best);
      at = hn::IfThenElse(better, hn::Set(d, candidate.number), at);
    }
    hn::StoreU(hn::DemoteTo(d8, hn::DemoteTo(di, at)), d8, numbers + i);
    farthest = hn::Max(farthest, best);
    nearest_second = hn::Min(nearest_second, second);
  }
  return {hn::GetLane(hn::MaxOfLanes(d, farthest)), hn::GetLane(hn::MinOfLanes(d, nearest_second))};
}

// The nearest of some centers for n points: its number, ties to the first. Returns the largest
// squared distance to the nearest center and the smallest to a second nearest one.
SquaredBounds nearest_of(const float* const* features, std::size_t dimensions,
                         const std::vector<Candidate>& candidates, std::size_t n,
                         std::uint8_t* numbers) {
  return dimensions == 3 ? nearest_by<ThreeFeatures>(features, dimensions, candidates, n, numbers)
                         : nearest_by<AllFeatures>(features, dimensions, candidates, n, numbers);
}

// The squared distances of one place to all centers, which come feature by feature and fill whole
// vectors. Returns the smallest.
double distances_to_centers(const double* place, const double* by_feature, std::size_t dimensions,
                            std::size_t centers, double* squares) {
  const hn::CappedTag<double, 8> d;
  auto least = hn::Set(d, 1e300);
  for (std::size_t c = 0; c < centers; c += hn::Lanes(d)) {
    auto sum = hn::Zero(d);
    for (std::size_t f = 0; f < dimensions; ++f) {
      const auto step = hn::Sub(hn::LoadU(d, by_feature + f * centers + c), hn::Set(d, place[f]));
      sum = multiply_add(step, step, sum);
    }
    hn::StoreU(sum, d, squares + c);
    least = hn::Min(least, sum);
  }
  return hn::GetLane(hn::MinOfLanes(d, least));
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(nearest_of);
HWY_EXPORT(distances_to_centers);

constexpr std::size_t kFew = 12;           // points that are added sooner one by one
constexpr std::size_t kCentersAtOnce = 8;  // in a vector
constexpr double kFar = 1e30;              // a distance beyond all others
constexpr double kSafety = 1e-9;           // of a distance: more than what rounding does to bounds
constexpr double kFirstMovement = 20;      // all starts go on until this much more than the limit

double squared_distance(const double* a, const double* b, std::size_t dimensions) {
  double sum = 0;
  for (std::size_t f = 0; f < dimensions; ++f) sum += (a[f] - b[f]) * (a[f] - b[f]);
  return sum;
}

/// Centers that move through one set of points.
class Mover {
 public:
  /// `runs`: of the points.
  Mover(const Points& points, const PointRuns& runs, Centers start)
      : points_(points),
        runs_(runs),
        dimensions_(points.dimensions()),
        k_(start.size() / dimensions_),
        centers_(std::move(start)),
        label_(points.size),
        bounds_(runs.size()),
        sums_(k_ * (dimensions_ + 1)) {}

  /// Gives every point to its nearest center and moves those to the means, at least once and until
  /// none goes farther than the limit. The sum of squares is left to who asks for it.
  KMeansRun run(unsigned most_iterations, double limit) {
    KMeansRun out;
    do {
      assign();
      moves_ = move();
      ++out.iterations;
      out.settled = *std::max_element(moves_.begin(), moves_.end()) <= limit;
    } while (out.iterations < most_iterations && !out.settled);
    return out;
  }

  const Centers& centers() const { return centers_; }
  std::vector<double> weights() const {
    std::vector<double> out(k_);
    for (std::size_t c = 0; c < k_; ++c) out[c] = sums_[c * (dimensions_ + 1) + dimensions_];
    return out;
  }

  /// Within groups, point by point.
  double sum_of_squares() const {
    return sum_over_chunks(points_.size, 0.0, [&](std::size_t begin, std::size_t end) {
      double sum = 0;
      for_each_stretch(label_.data(), begin, end,
                       [&](std::size_t first, std::size_t last, std::uint8_t label) {
                         sum += weighted_squares(points_, first, last, center(label));
                       });
      return sum;
    });
  }

  /// The same from the scatter of all points, in no time: what is not within the groups is between
  /// them, once the centers have been moved. Less exact where next to nothing is within.
  double sum_of_squares(const Scatter& all) const {
    double between = 0;
    for (std::size_t c = 0; c < k_; ++c)
      between += std::max(0.0, sums_[c * (dimensions_ + 1) + dimensions_]) *
                 squared_distance(center(c), all.mean.data(), dimensions_);
    return std::max(0.0, all.sum_of_squares - between);
  }

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

  void add(Sums& sums, std::size_t to_center, std::size_t i, double weight) const {
    double* const to = sums.data() + to_center * (dimensions_ + 1);
    for (std::size_t f = 0; f < dimensions_; ++f)
      to[f] += weight * static_cast<double>(points_.features[f][i]);
    to[dimensions_] += weight;
  }

  /// Adds the points from `begin` to `end`, which all go to one center.
  void add_all(Sums& sums, std::size_t to_center, std::size_t begin, std::size_t end) const {
    if (end - begin < kFew) {
      for (std::size_t i = begin; i < end; ++i) add(sums, to_center, i, points_.weights[i]);
      return;
    }
    add_weighted(points_, begin, end, sums.data() + to_center * (dimensions_ + 1));
  }

  /// Half the way from each center to its nearest; and the centers feature by feature, filled up
  /// with such as no point is near to.
  void measure_centers() {
    const std::size_t filled = (k_ + kCentersAtOnce - 1) / kCentersAtOnce * kCentersAtOnce;
    by_feature_.assign(filled * dimensions_, kFar);
    for (std::size_t c = 0; c < k_; ++c)
      for (std::size_t f = 0; f < dimensions_; ++f) by_feature_[f * filled + c] = center(c)[f];
    half_way_.assign(k_, kFar);
    for (std::size_t c = 0; c < k_; ++c)
      for (std::size_t other = 0; other < c; ++other) {
        const double half =
            0.5 * std::sqrt(squared_distance(center(c), center(other), dimensions_));
        half_way_[c] = std::min(half_way_[c], half);
        half_way_[other] = std::min(half_way_[other], half);
      }
  }

  /// What the bounds are worth after the centers moved.
  void widen_bounds() {
    std::vector<double> others(k_, 0.0);
    for (std::size_t c = 0; c < k_; ++c)
      for (std::size_t other = 0; other < k_; ++other)
        if (other != c) others[c] = std::max(others[c], moves_[other]);
    for (std::size_t r = 0; r < bounds_.size(); ++r) {
      if (!bounds_[r].one_center) continue;
      const std::size_t own = label_[r * kRunPoints];
      bounds_[r].above = (bounds_[r].above + moves_[own]) * (1 + kSafety);
      bounds_[r].below = bounds_[r].below - others[own] - bounds_[r].above * kSafety;
    }
  }

  /// New groups after the centers moved so far; only what changes is added and taken away.
  void assign() {
    measure_centers();
    if (assigned_) widen_bounds();
    std::vector<Sums> parts(chunks_of(points_.size));
    for_each_chunk(points_.size, [&](std::size_t chunk, std::size_t begin, std::size_t end) {
      Scratch scratch;
      for (std::size_t at = begin; at < end; at += kRunPoints) {
        const RunBounds& bounds = bounds_[at / kRunPoints];
        if (bounds.one_center && bounds.above <= std::max(bounds.below, half_way_[label_[at]]))
          continue;
        assign_run(at, std::min(kRunPoints, end - at), scratch, parts[chunk]);
      }
    });
    assigned_ = true;
    for (const Sums& part : parts)
      for (std::size_t s = 0; s < part.size(); ++s) sums_[s] += part[s];
  }

  void assign_run(std::size_t begin, std::size_t size, Scratch& scratch, Sums& sums) {
    if (sums.empty()) sums.resize(sums_.size());
    const std::size_t run = begin / kRunPoints;
    const double radius = runs_.radius(run);
    const auto [nearest, next] = find_candidates(runs_.middle(run), radius, scratch);
    const double below = (next - radius) * (1 - kSafety);
    if (scratch.candidates.size() == 1) {
      const auto number = static_cast<std::uint8_t>(scratch.candidates[0].number);
      take_whole(begin, size, number, scratch, sums);
      bounds_[run] = {true, (nearest + radius) * (1 + kSafety), below};
      return;
    }
    load_run(begin, size, scratch);
    const SquaredBounds found =
        HWY_DYNAMIC_DISPATCH(nearest_of)(scratch.features.data(), dimensions_, scratch.candidates,
                                         kRunPoints, scratch.numbers.data());
    take_labels(begin, size, scratch.numbers.data(), sums);
    // All are the same when each is like the one before it.
    const std::uint8_t* const numbers = scratch.numbers.data();
    bounds_[run] = {std::memcmp(numbers, numbers + 1, kRunPoints - 1) == 0,
                    std::sqrt(found.farthest) * (1 + kSafety),
                    std::min(below, std::sqrt(found.nearest_second) * (1 - kSafety))};
  }

  /// The centers that can be the nearest of some place in a ball. Returns how far its middle is
  /// from the nearest of all, and from the nearest of the others.
  std::pair<double, double> find_candidates(const double* middle, double radius,
                                            Scratch& scratch) const {
    scratch.squares.resize(by_feature_.size() / dimensions_);
    const double nearest = std::sqrt(HWY_DYNAMIC_DISPATCH(distances_to_centers)(
        middle, by_feature_.data(), dimensions_, scratch.squares.size(), scratch.squares.data()));
    const double reach = (nearest + 2 * radius) * (1 + kSafety);
    double next = kFar * kFar;
    scratch.candidates.clear();
    for (std::size_t c = 0; c < k_; ++c) {
      if (scratch.squares[c] <= reach * reach) {
        scratch.candidates.push_back({center(c), static_cast<double>(c)});
      } else {
        next = std::min(next, scratch.squares[c]);
      }
    }
    return {nearest, std::sqrt(next)};
  }

  /// Gives all points of a run to one center.
  void take_whole(std::size_t begin, std::size_t size, std::uint8_t number, Scratch& scratch,
                  Sums& sums) {
    const std::size_t run = begin / kRunPoints;
    const std::uint8_t before = label_[begin];
    if (assigned_ && !bounds_[run].one_center) {
      scratch.numbers.fill(number);
      take_labels(begin, size, scratch.numbers.data(), sums);
      return;
    }
    if (assigned_ && before == number) return;
    const double* const own = runs_.sums(run);
    for (std::size_t s = 0; s <= dimensions_; ++s) {
      if (assigned_) sums[before * (dimensions_ + 1) + s] -= own[s];
      sums[number * (dimensions_ + 1) + s] += own[s];
    }
    std::fill_n(label_.begin() + static_cast<std::ptrdiff_t>(begin), size, number);
  }

  void take_labels(std::size_t begin, std::size_t size, const std::uint8_t* now, Sums& sums) {
    if (assigned_ && std::memcmp(label_.data() + begin, now, size) == 0) return;
    if (!assigned_) {
      std::copy_n(now, size, label_.begin() + static_cast<std::ptrdiff_t>(begin));
      for_each_stretch(now, 0, size, [&](std::size_t first, std::size_t last, std::uint8_t number) {
        add_all(sums, number, begin + first, begin + last);
      });
      return;
    }
    for (std::size_t i = 0; i < size; ++i) {
      std::uint8_t& label = label_[begin + i];
      if (label == now[i]) continue;
      add(sums, label, begin + i, -points_.weights[begin + i]);
      add(sums, now[i], begin + i, points_.weights[begin + i]);
      label = now[i];
    }
  }

  /// Points the scratch to the features of a run; the last one is filled up with its first point.
  void load_run(std::size_t begin, std::size_t size, Scratch& scratch) const {
    scratch.features.resize(dimensions_);
    if (size == kRunPoints) {
      for (std::size_t f = 0; f < dimensions_; ++f)
        scratch.features[f] = points_.features[f] + begin;
      return;
    }
    scratch.values.resize(dimensions_ * kRunPoints);
    for (std::size_t f = 0; f < dimensions_; ++f) {
      float* const to = scratch.values.data() + f * kRunPoints;
      std::fill_n(to, kRunPoints, points_.features[f][begin]);
      std::copy_n(points_.features[f] + begin, size, to);
      scratch.features[f] = to;
    }
  }

  /// Moves every center to the mean of its group; how far each one went.
  std::vector<double> move() {
    std::vector<double> moves(k_);
    for (std::size_t c = 0; c < k_; ++c) {
      const double* const sums = sums_.data() + c * (dimensions_ + 1);
      // Less than half a pixel is what rounding leaves of an empty group.
      if (sums[dimensions_] < 0.5) {
        moves[c] = move_to_farthest(c);
        continue;
      }
      double way = 0;
      for (std::size_t f = 0; f < dimensions_; ++f) {
        const double mean = sums[f] / sums[dimensions_];
        way += (mean - centers_[c * dimensions_ + f]) * (mean - centers_[c * dimensions_ + f]);
        centers_[c * dimensions_ + f] = mean;
      }
      moves[c] = std::sqrt(way);
    }
    return moves;
  }

  double move_to_farthest(std::size_t lost) {
    std::vector<double> point(dimensions_), farthest_point(dimensions_);
    double farthest = -1;
    for (std::size_t i = 0; i < points_.size; ++i) {
      copy_point(points_, i, point.data());
      const double distance =
          squared_distance(point.data(), &centers_[label_[i] * dimensions_], dimensions_);
      if (distance <= farthest) continue;
      farthest = distance;
      farthest_point = point;
    }
    double* const to = &centers_[lost * dimensions_];
    const double way = std::sqrt(squared_distance(farthest_point.data(), to, dimensions_));
    std::copy(farthest_point.begin(), farthest_point.end(), to);
    return way;
  }

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

}  // namespace

KMeans move_centers(const Points& points, Centers start, const KMeansOptions& options) {
  const PointRuns runs(points);
  Mover mover(points, runs, std::move(start));
  KMeansRun run =
      mover.run(options.most_iterations, options.movement * scatter_of(points).deviation());
  run.sum_of_squares = mover.sum_of_squares();
  return {mover.centers(), mover.weights(), 0, {run}};
}

Centers rough_groups(const DrawnPoints& points, const KMeansOptions& options) {
  const Points& drawn = points.drawn();
  Mover mover(drawn, points.drawn_runs(),
              starting_centers(points, options.k, options.start, mixed_bits(options.seed)));
  mover.run(options.most_iterations,
            kFirstMovement * options.movement * scatter_of(drawn).deviation());
  return mover.centers();
}

namespace {

/// Centers, and what they leave of the drawn points.
struct Trial {
  Centers centers;
  double sum_of_squares = 0;
};

/// The two groups become one that are cheapest to join (Ward 1963).
Centers with_two_joined(const Mover& mover, std::size_t dimensions) {
  const std::vector<double> weights = mover.weights();
  const Centers& centers = mover.centers();
  const auto cost = [&](std::size_t a, std::size_t b) {
    return weights[a] * weights[b] / std::max(1e-300, weights[a] + weights[b]) *
           squared_distance(&centers[a * dimensions], &centers[b * dimensions], dimensions);
  };
  std::pair<std::size_t, std::size_t> least{0, 1};
  for (std::size_t a = 0; a < weights.size(); ++a)
    for (std::size_t b = a + 1; b < weights.size(); ++b)
      if (cost(a, b) < cost(least.first, least.second)) least = {a, b};
  const auto [to, gone] = least;
  Centers joined = centers;
  const double both = std::max(1e-300, weights[to] + weights[gone]);
  for (std::size_t f = 0; f < dimensions; ++f)
    joined[to * dimensions + f] = (weights[to] * centers[to * dimensions + f] +
                                   weights[gone] * centers[gone * dimensions + f]) /
                                  both;
  const auto first = joined.begin() + static_cast<std::ptrdiff_t>(gone * dimensions);
  joined.erase(first, first + static_cast<std::ptrdiff_t>(dimensions));
  return joined;
}

/// Moves centers through the drawn points.
Trial moved(const DrawnPoints& points, Centers start, unsigned most_iterations, double limit) {
  Mover mover(points.drawn(), points.drawn_runs(), std::move(start));
  mover.run(most_iterations, limit);
  return {mover.centers(), mover.sum_of_squares()};
}

/// A center more where the points are far from all, and then one less where two groups are most
/// alike: what leads out of groupings that no movement makes better.
Trial regrouped(const DrawnPoints& points, const Trial& from, unsigned most_iterations,
                double limit, std::uint64_t seed) {
  constexpr unsigned kStepsWithOneMore = 3;
  const Points& drawn = points.drawn();
  Mover more(drawn, points.drawn_runs(), with_one_more(drawn, from.centers, seed));
  more.run(kStepsWithOneMore, limit);
  return moved(points, with_two_joined(more, drawn.dimensions()), most_iterations, limit);
}

/// Regroups as long as that leaves less.
Trial best_regrouped(const DrawnPoints& points, const Trial& from, unsigned most_iterations,
                     double limit, std::uint64_t seed) {
  constexpr std::size_t kAtOnce = 4;
  constexpr double kWorth = 1 - 1e-4;
  Trial best = from;
  for (std::size_t round = 0; best.sum_of_squares > 0; ++round) {
    std::vector<Trial> trials(kAtOnce);
    for_each_start(kAtOnce, [&](std::size_t t) {
      trials[t] = regrouped(points, best, most_iterations, limit, seed + kAtOnce * round + t);
    });
    const Trial& least = *std::min_element(
        trials.begin(), trials.end(),
        [](const Trial& a, const Trial& b) { return a.sum_of_squares < b.sum_of_squares; });
    if (least.sum_of_squares >= kWorth * best.sum_of_squares) break;
    best = least;
  }
  return best;
}

}  // namespace

KMeans k_means(const DrawnPoints& points, const KMeansOptions& options,
               const std::vector<Centers>& also) {
  const Scatter scatter = scatter_of(points.all());
  const double limit = options.movement * scatter.deviation();
  KMeans out;
  out.runs.resize(options.restarts + also.size());
  std::optional<Mover> best;
  std::mutex one_at_a_time;
  for_each_start(out.runs.size(), [&](std::size_t r) {
    Mover first(points.drawn(), points.drawn_runs(),
                r < options.restarts ? starting_centers(points, options.k, options.start,
                                                        mixed_bits(options.seed) + r)
                                     : also[r - options.restarts]);
    KMeansRun run = first.run(options.most_iterations, kFirstMovement * limit);
    Mover all(points.all(), points.all_runs(), first.centers());
    all.run(1, limit);
    run.sum_of_squares = all.sum_of_squares(scatter);
    const std::lock_guard lock(one_at_a_time);
    out.runs[r] = run;
    // The first of those that are equally good, whichever came first.
    if (best && std::pair(run.sum_of_squares, r) > std::pair(out.sum_of_squares(), out.best))
      return;
    best.emplace(std::move(all));
    out.best = r;
  });
  KMeansRun& kept = out.runs[out.best];
  bool regrouped = false;
  if (options.k > 1 && kept.settled) {
    const Trial start =
        moved(points, best->centers(), options.most_iterations, kFirstMovement * limit);
    const Trial found = best_regrouped(points, start, options.most_iterations,
                                       kFirstMovement * limit, mixed_bits(options.seed + 1));
    if (found.sum_of_squares < start.sum_of_squares) {
      Mover all(points.all(), points.all_runs(), found.centers);
      all.run(1, limit);
      regrouped = all.sum_of_squares(scatter) < out.sum_of_squares();
      if (regrouped) best.emplace(std::move(all));
    }
  }
  const KMeansRun rest = best->run(options.most_iterations - kept.iterations, limit);
  kept = {best->sum_of_squares(), kept.iterations + rest.iterations, rest.settled, regrouped};
  out.centers = best->centers();
  out.weights = best->weights();
  return out;
}

}  // namespace chalcedony
#endif
