// Points are looked at in runs, which lie in a ball each. A run whose points all belong to one
// center keeps an upper bound on their distances to it and a lower bound on those to all others
// (Hamerly 2010). As long as the first is below the second, or below half the way to the nearest
// other center, nothing can change and nothing is computed. Else only centers are looked at that
// can be nearest to some place in the ball; when that is one, it gets the run as a whole (Kanungo
// et al. 2002).
#include "core/cluster/center_mover.h"

#include <algorithm>
#include <cmath>
#include <cstring>

#include "core/cluster/label_stretches.h"
#include "core/cluster/point_sums.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cluster/center_mover.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/cluster/point_math-inl.h"

#ifndef CHALCEDONY_CORE_CLUSTER_CENTER_MOVER_CC_
#define CHALCEDONY_CORE_CLUSTER_CENTER_MOVER_CC_
namespace chalcedony {
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

constexpr std::size_t kCentersAtOnce = 8;  // in a vector
constexpr double kFar = 1e30;              // a distance beyond all others
constexpr double kSafety = 1e-9;           // of a distance: more than what rounding does to bounds

}  // namespace

CenterMover::CenterMover(const Points& points, const PointRuns& runs, Centers start)
    : points_(points),
      runs_(runs),
      dimensions_(points.dimensions()),
      k_(start.size() / dimensions_),
      centers_(std::move(start)),
      label_(points.size),
      bounds_(runs.size()),
      sums_(k_ * (dimensions_ + 1)) {}

Movement CenterMover::run(unsigned most_iterations, double limit) {
  Movement out;
  do {
    assign();
    moves_ = move();
    ++out.iterations;
    out.settled = *std::max_element(moves_.begin(), moves_.end()) <= limit;
  } while (out.iterations < most_iterations && !out.settled);
  return out;
}

std::vector<double> CenterMover::weights() const {
  std::vector<double> out(k_);
  for (std::size_t c = 0; c < k_; ++c) out[c] = sums_[c * (dimensions_ + 1) + dimensions_];
  return out;
}

double CenterMover::sum_of_squares() const {
  return sum_over_chunks(points_.size, 0.0, [&](std::size_t begin, std::size_t end) {
    double sum = 0;
    for_each_stretch(label_.data(), begin, end,
                     [&](std::size_t first, std::size_t last, std::uint8_t label) {
                       sum += weighted_squares(points_, first, last, center(label));
                     });
    return sum;
  });
}

double CenterMover::sum_of_squares(const Scatter& all) const {
  double between = 0;
  for (std::size_t c = 0; c < k_; ++c)
    between += std::max(0.0, sums_[c * (dimensions_ + 1) + dimensions_]) *
               squared_distance(center(c), all.mean.data(), dimensions_);
  return std::max(0.0, all.sum_of_squares - between);
}

void CenterMover::add(Sums& sums, std::size_t to_center, std::size_t i, double weight) const {
  double* const to = sums.data() + to_center * (dimensions_ + 1);
  for (std::size_t f = 0; f < dimensions_; ++f)
    to[f] += weight * static_cast<double>(points_.features[f][i]);
  to[dimensions_] += weight;
}

/// Half the way from each center to its nearest; and the centers feature by feature, filled up
/// with such as no point is near to.
void CenterMover::measure_centers() {
  const std::size_t filled = (k_ + kCentersAtOnce - 1) / kCentersAtOnce * kCentersAtOnce;
  by_feature_.assign(filled * dimensions_, kFar);
  for (std::size_t c = 0; c < k_; ++c)
    for (std::size_t f = 0; f < dimensions_; ++f) by_feature_[f * filled + c] = center(c)[f];
  half_way_.assign(k_, kFar);
  for (std::size_t c = 0; c < k_; ++c)
    for (std::size_t other = 0; other < c; ++other) {
      const double half = 0.5 * std::sqrt(squared_distance(center(c), center(other), dimensions_));
      half_way_[c] = std::min(half_way_[c], half);
      half_way_[other] = std::min(half_way_[other], half);
    }
}

/// What the bounds are worth after the centers moved.
void CenterMover::widen_bounds() {
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
void CenterMover::assign() {
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

void CenterMover::assign_run(std::size_t begin, std::size_t size, Scratch& scratch, Sums& sums) {
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
  const SquaredBounds found = HWY_DYNAMIC_DISPATCH(nearest_of)(
      scratch.features.data(), dimensions_, scratch.candidates, kRunPoints, scratch.numbers.data());
  take_labels(begin, size, scratch.numbers.data(), sums);
  // All are the same when each is like the one before it.
  const std::uint8_t* const numbers = scratch.numbers.data();
  bounds_[run] = {std::memcmp(numbers, numbers + 1, kRunPoints - 1) == 0,
                  std::sqrt(found.farthest) * (1 + kSafety),
                  std::min(below, std::sqrt(found.nearest_second) * (1 - kSafety))};
}

/// The centers that can be the nearest of some place in a ball. Returns how far its middle is
/// from the nearest of all, and from the nearest of the others.
std::pair<double, double> CenterMover::find_candidates(const double* middle, double radius,
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
void CenterMover::take_whole(std::size_t begin, std::size_t size, std::uint8_t number,
                             Scratch& scratch, Sums& sums) {
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

void CenterMover::take_labels(std::size_t begin, std::size_t size, const std::uint8_t* now,
                              Sums& sums) {
  if (assigned_ && std::memcmp(label_.data() + begin, now, size) == 0) return;
  if (!assigned_) {
    std::copy_n(now, size, label_.begin() + static_cast<std::ptrdiff_t>(begin));
    add_weighted_by_label(points_, label_.data(), begin, begin + size, sums.data());
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
void CenterMover::load_run(std::size_t begin, std::size_t size, Scratch& scratch) const {
  scratch.features.resize(dimensions_);
  if (size == kRunPoints) {
    for (std::size_t f = 0; f < dimensions_; ++f) scratch.features[f] = points_.features[f] + begin;
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
std::vector<double> CenterMover::move() {
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

double CenterMover::move_to_farthest(std::size_t lost) {
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

}  // namespace chalcedony
#endif
