// Bounds are kept for runs of neighboring points, which are alike when the points are in the order
// of their colors. A run whose points all belong to one center keeps an upper bound on their
// distances to it and a lower bound on those to all others (Hamerly 2010). As long as the first is
// below the second, or below half the way to the nearest other center, nothing can change and
// nothing is computed. Else only centers are looked at that can be nearest at all: one that is more
// than twice as far from a center as any point of the run cannot (Elkan 2003).
#include "core/cluster/k_means.h"

#include <array>
#include <cmath>
#include <cstring>
#include <mutex>
#include <optional>
#include <utility>

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

// The largest squared distance of n points to one center.
double farthest_from(const float* const* features, std::size_t dimensions, const double* center,
                     std::size_t n) {
  const hn::CappedTag<double, 8> d;
  auto farthest = hn::Zero(d);
  for (std::size_t i = 0; i < n; i += hn::Lanes(d))
    farthest = hn::Max(farthest, squared_distances(d, features, dimensions, center, i));
  return hn::GetLane(hn::MaxOfLanes(d, farthest));
}

// The nearest of some centers for n points: its number, ties to the first. Returns the largest
// squared distance to the nearest center and the smallest to a second nearest one.
SquaredBounds nearest_of(const float* const* features, std::size_t dimensions,
                         const std::vector<Candidate>& candidates, std::size_t n,
                         std::uint8_t* numbers) {
  const hn::CappedTag<double, 8> d;
  const hn::Rebind<std::int32_t, decltype(d)> di;
  const hn::Rebind<std::uint8_t, decltype(d)> d8;
  auto farthest = hn::Zero(d), nearest_second = hn::Set(d, 1e60);
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    auto best = hn::Set(d, 1e60), second = best, at = hn::Zero(d);
    for (const Candidate& candidate : candidates) {
      const auto sum = squared_distances(d, features, dimensions, candidate.center, i);
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

// The sum of n numbers, in eight parts that are the same for every width of vectors.
template <class Number>
double sum_in_parts(std::size_t n, const Number& number) {
  constexpr std::size_t kParts = 8;
  std::array<double, kParts> parts{};
  std::size_t i = 0;
  for (; i + kParts <= n; i += kParts)
    for (std::size_t p = 0; p < kParts; ++p) parts[p] += number(i + p);
  for (; i < n; ++i) parts[i % kParts] += number(i);
  return ((parts[0] + parts[4]) + (parts[2] + parts[6])) +
         ((parts[1] + parts[5]) + (parts[3] + parts[7]));
}

double weighted_sum(const float* values, const double* weights, std::size_t n) {
  return sum_in_parts(n,
                      [&](std::size_t i) { return weights[i] * static_cast<double>(values[i]); });
}

double sum_of(const double* weights, std::size_t n) {
  return sum_in_parts(n, [&](std::size_t i) { return weights[i]; });
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(farthest_from);
HWY_EXPORT(nearest_of);
HWY_EXPORT(weighted_sum);
HWY_EXPORT(sum_of);

constexpr std::size_t kRun = 64;       // points; a part of a chunk
constexpr double kFar = 1e30;          // a distance beyond all others
constexpr double kSafety = 1e-9;       // of a distance: more than what rounding does to bounds
constexpr double kFirstMovement = 20;  // all starts go on until this much more than the limit

double squared_distance(const double* a, const double* b, std::size_t dimensions) {
  double sum = 0;
  for (std::size_t f = 0; f < dimensions; ++f) sum += (a[f] - b[f]) * (a[f] - b[f]);
  return sum;
}

/// All points around their common mean.
struct Scatter {
  Centers mean;
  double sum_of_squares = 0;
  double weight = 0;

  /// The standard deviation over all features.
  double deviation() const { return std::sqrt(sum_of_squares / weight); }
};

/// Centers that move through one set of points.
class Mover {
 public:
  Mover(const Points& points, Centers start)
      : points_(points),
        dimensions_(points.dimensions()),
        k_(start.size() / dimensions_),
        centers_(std::move(start)),
        label_(points.size),
        runs_((points.size + kRun - 1) / kRun),
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
      // Feature by feature, so that the points are read one after the other.
      std::array<double, kRun> squares;
      double sum = 0;
      for (std::size_t at = begin; at < end; at += kRun) {
        const std::size_t size = std::min(kRun, end - at);
        squares.fill(0);
        for (std::size_t f = 0; f < dimensions_; ++f) {
          const float* const values = points_.features[f] + at;
          const double* const centers = centers_.data() + f;
          for (std::size_t i = 0; i < size; ++i) {
            const double step =
                static_cast<double>(values[i]) - centers[label_[at + i] * dimensions_];
            squares[i] += step * step;
          }
        }
        for (std::size_t i = 0; i < size; ++i) sum += points_.weights[at + i] * squares[i];
      }
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

  /// kRun points: bounds on distances, when all belong to one center.
  struct RunBounds {
    bool one_center = false;
    double above = 0;  // to that center, of all its points
    double below = 0;  // to any other center
  };

  /// Room for one run.
  struct Scratch {
    std::vector<float> values;  // of a run that must be filled up
    std::vector<const float*> features;
    std::vector<Candidate> candidates;
    std::array<std::uint8_t, kRun> numbers{};
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
    double* const to = sums.data() + to_center * (dimensions_ + 1);
    for (std::size_t f = 0; f < dimensions_; ++f)
      to[f] += HWY_DYNAMIC_DISPATCH(weighted_sum)(points_.features[f] + begin,
                                                  points_.weights + begin, end - begin);
    to[dimensions_] += HWY_DYNAMIC_DISPATCH(sum_of)(points_.weights + begin, end - begin);
  }

  /// Distances between all centers, and half the way from each to its nearest.
  void measure_centers() {
    between_.assign(k_ * k_, 0.0);
    half_way_.assign(k_, kFar);
    for (std::size_t c = 0; c < k_; ++c)
      for (std::size_t other = 0; other < k_; ++other) {
        if (other == c) continue;
        const double way = std::sqrt(squared_distance(center(c), center(other), dimensions_));
        between_[c * k_ + other] = way;
        half_way_[c] = std::min(half_way_[c], 0.5 * way);
      }
  }

  /// What the bounds are worth after the centers moved.
  void widen_bounds() {
    std::vector<double> others(k_, 0.0);
    for (std::size_t c = 0; c < k_; ++c)
      for (std::size_t other = 0; other < k_; ++other)
        if (other != c) others[c] = std::max(others[c], moves_[other]);
    for (std::size_t r = 0; r < runs_.size(); ++r) {
      if (!runs_[r].one_center) continue;
      const std::size_t own = label_[r * kRun];
      runs_[r].above = (runs_[r].above + moves_[own]) * (1 + kSafety);
      runs_[r].below = runs_[r].below - others[own] - runs_[r].above * kSafety;
    }
  }

  /// New groups after the centers moved so far; only what changes is added and taken away.
  void assign() {
    measure_centers();
    if (assigned_) widen_bounds();
    std::vector<Sums> parts(chunks_of(points_.size));
    for_each_chunk(points_.size, [&](std::size_t chunk, std::size_t begin, std::size_t end) {
      Scratch scratch;
      for (std::size_t at = begin; at < end; at += kRun) {
        const RunBounds& bounds = runs_[at / kRun];
        if (bounds.one_center && bounds.above <= std::max(bounds.below, half_way_[label_[at]]))
          continue;
        // Neighbors are alike: before there are labels, a run is guessed to lie where the last did.
        const std::size_t guess = assigned_ || at == begin ? label_[at] : label_[at - 1];
        assign_run(at, std::min(kRun, end - at), guess, scratch, parts[chunk]);
      }
    });
    assigned_ = true;
    for (const Sums& part : parts)
      for (std::size_t s = 0; s < part.size(); ++s) sums_[s] += part[s];
  }

  void assign_run(std::size_t begin, std::size_t size, std::size_t guess, Scratch& scratch,
                  Sums& sums) {
    load_run(begin, size, scratch);
    const double radius = std::sqrt(HWY_DYNAMIC_DISPATCH(farthest_from)(
        scratch.features.data(), dimensions_, center(guess), kRun));
    double below = kFar;
    scratch.candidates.clear();
    for (std::size_t c = 0; c < k_; ++c) {
      const double way = between_[guess * k_ + c];
      if (way * (1 - kSafety) > 2 * radius) {
        below = std::min(below, way - radius);
      } else {
        scratch.candidates.push_back({center(c), static_cast<double>(c)});
      }
    }
    const SquaredBounds found = HWY_DYNAMIC_DISPATCH(nearest_of)(
        scratch.features.data(), dimensions_, scratch.candidates, kRun, scratch.numbers.data());
    take_labels(begin, size, scratch.numbers.data(), sums);
    const auto alike = [&](std::uint8_t number) { return number == scratch.numbers[0]; };
    runs_[begin / kRun] = {std::all_of(scratch.numbers.begin(), scratch.numbers.end(), alike),
                           std::sqrt(found.farthest) * (1 + kSafety),
                           std::min(below, std::sqrt(found.nearest_second)) * (1 - kSafety)};
  }

  void take_labels(std::size_t begin, std::size_t size, const std::uint8_t* now, Sums& sums) {
    if (assigned_ && std::memcmp(label_.data() + begin, now, size) == 0) return;
    if (sums.empty()) sums.resize(sums_.size());
    if (!assigned_) {
      std::copy_n(now, size, label_.begin() + static_cast<std::ptrdiff_t>(begin));
      for (std::size_t first = 0, end = 0; first < size; first = end) {
        while (end < size && now[end] == now[first]) ++end;
        add_all(sums, now[first], begin + first, begin + end);
      }
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
    if (size == kRun) {
      for (std::size_t f = 0; f < dimensions_; ++f)
        scratch.features[f] = points_.features[f] + begin;
      return;
    }
    scratch.values.resize(dimensions_ * kRun);
    for (std::size_t f = 0; f < dimensions_; ++f) {
      float* const to = scratch.values.data() + f * kRun;
      std::fill_n(to, kRun, points_.features[f][begin]);
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
  std::size_t dimensions_, k_;
  Centers centers_;
  std::vector<std::uint8_t> label_;
  std::vector<RunBounds> runs_;
  std::vector<double> moves_;     // how far each center went since the points were assigned
  std::vector<double> between_;   // distances of centers, k x k
  std::vector<double> half_way_;  // half the way to the nearest other center
  Sums sums_;
  bool assigned_ = false;
};

Scatter scatter_of(const Points& points) {
  Mover mover(points, Centers(points.dimensions(), 0.0));
  mover.run(1, 0);
  return {mover.centers(), mover.sum_of_squares(), mover.weights()[0]};
}

}  // namespace

double total_sum_of_squares(const Points& points) { return scatter_of(points).sum_of_squares; }

KMeans move_centers(const Points& points, Centers start, const KMeansOptions& options) {
  Mover mover(points, std::move(start));
  KMeansRun run =
      mover.run(options.most_iterations, options.movement * scatter_of(points).deviation());
  run.sum_of_squares = mover.sum_of_squares();
  return {mover.centers(), mover.weights(), 0, {run}};
}

Centers rough_groups(const DrawnPoints& points, const KMeansOptions& options) {
  Mover mover(points.drawn(),
              starting_centers(points, options.k, options.start, mixed_bits(options.seed)));
  mover.run(options.most_iterations,
            kFirstMovement * options.movement * scatter_of(points.drawn()).deviation());
  return mover.centers();
}

KMeans k_means(const DrawnPoints& points, const KMeansOptions& options,
               const std::vector<Centers>& also) {
  const Scatter scatter = scatter_of(points.all());
  const double limit = options.movement * scatter.deviation();
  KMeans out;
  out.runs.resize(options.restarts + also.size());
  std::optional<Mover> best;
  std::mutex one_at_a_time;
  for_each_start(out.runs.size(), [&](std::size_t r) {
    Mover first(points.drawn(), r < options.restarts
                                    ? starting_centers(points, options.k, options.start,
                                                       mixed_bits(options.seed) + r)
                                    : also[r - options.restarts]);
    KMeansRun run = first.run(options.most_iterations, kFirstMovement * limit);
    Mover all(points.all(), first.centers());
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
  const KMeansRun rest = best->run(options.most_iterations - kept.iterations, limit);
  kept = {best->sum_of_squares(), kept.iterations + rest.iterations, rest.settled};
  out.centers = best->centers();
  out.weights = best->weights();
  return out;
}

}  // namespace chalcedony
#endif
