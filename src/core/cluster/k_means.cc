// Hamerly's bounds: a point keeps an upper bound on the distance to its own center and a lower
// bound on that to the second nearest. As long as the first is below the second, or below half the
// way to the nearest other center, the point cannot change its group and nothing is computed.
#include "core/cluster/k_means.h"

#include <cmath>

#include "core/cluster/seeded_random.h"
#include "core/error.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cluster/k_means.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// Squared distances of one point to all centers, an array of centers for each feature.
void squared_distances(const double* point, std::size_t dimensions, const double* centers,
                       std::size_t stride, double* distances) {
  const hn::CappedTag<double, 8> d;
  for (std::size_t c = 0; c < stride; c += hn::Lanes(d)) {
    auto sum = hn::Zero(d);
    for (std::size_t f = 0; f < dimensions; ++f) {
      const auto step = hn::Sub(hn::Set(d, point[f]), hn::LoadU(d, centers + f * stride + c));
      sum = hn::Add(sum, hn::Mul(step, step));
    }
    hn::StoreU(sum, d, distances + c);
  }
}

// What each of n squared distances becomes with one more center.
void nearer_center(const float* const* features, std::size_t dimensions, const double* center,
                   std::size_t n, const double* before, double* after) {
  const hn::CappedTag<double, 8> d;
  const hn::Rebind<float, decltype(d)> df;
  std::size_t i = 0;
  for (; i + hn::Lanes(d) <= n; i += hn::Lanes(d)) {
    auto sum = hn::Zero(d);
    for (std::size_t f = 0; f < dimensions; ++f) {
      const auto step =
          hn::Sub(hn::PromoteTo(d, hn::LoadU(df, features[f] + i)), hn::Set(d, center[f]));
      sum = hn::Add(sum, hn::Mul(step, step));
    }
    hn::StoreU(hn::Min(sum, hn::LoadU(d, before + i)), d, after + i);
  }
  for (; i < n; ++i) {
    double sum = 0;
    for (std::size_t f = 0; f < dimensions; ++f) {
      const double step = static_cast<double>(features[f][i]) - center[f];
      sum = sum + step * step;
    }
    after[i] = sum < before[i] ? sum : before[i];
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(squared_distances);
HWY_EXPORT(nearer_center);

constexpr std::size_t kCenterPadding = 8;
constexpr double kNowhere = 1e150;  // where centers that fill up stand; their squares are finite
constexpr double kFar = 1e60;       // a squared distance beyond all others
// A bound held in float is widened by more than its rounding.
constexpr float kWider = 1 + 1e-6f, kNarrower = 1 - 1e-6f;

void copy_point(const Points& points, std::size_t i, double* to) {
  for (std::size_t f = 0; f < points.dimensions(); ++f)
    to[f] = static_cast<double>(points.features[f][i]);
}

double squared_distance(const double* a, const double* b, std::size_t dimensions) {
  double sum = 0;
  for (std::size_t f = 0; f < dimensions; ++f) sum += (a[f] - b[f]) * (a[f] - b[f]);
  return sum;
}

/// Draws points with a chance in proportion to weight times `parts`, which sum up chunk by chunk.
class PointDraw {
 public:
  PointDraw(const Points& points, const std::vector<double>& parts)
      : points_(points), parts_(parts), sums_(chunks_of(points.size)) {
    for_each_chunk(points.size, [&](std::size_t chunk, std::size_t begin, std::size_t end) {
      double sum = 0;
      for (std::size_t i = begin; i < end; ++i) sum += points.weights[i] * parts[i];
      sums_[chunk] = sum;
    });
    for (const double sum : sums_) total_ += sum;
  }

  double total() const { return total_; }

  std::size_t draw(SeededRandom& random) const {
    double left = random.next() * total_;
    std::size_t chunk = 0;
    while (chunk + 1 < sums_.size() && left >= sums_[chunk]) left -= sums_[chunk++];
    const std::size_t end = std::min(points_.size, (chunk + 1) * kPointChunk);
    std::size_t last = chunk * kPointChunk;
    for (std::size_t i = last; i < end; ++i) {
      if (points_.weights[i] * parts_[i] <= 0) continue;
      last = i;
      left -= points_.weights[i] * parts_[i];
      if (left < 0) break;
    }
    return last;
  }

 private:
  const Points& points_;
  const std::vector<double>& parts_;
  std::vector<double> sums_;
  double total_ = 0;
};

/// Starting centers, drawn one after the other.
class CenterDraw {
 public:
  CenterDraw(const Points& points, std::uint64_t seed)
      : points_(points),
        random_(seed),
        even_(points.size, 1.0),
        by_weight_(points, even_),
        nearest_(points.size, 1e300),
        lowered_(points.size),
        kept_(points.size) {}

  std::size_t count() const { return centers_.size() / points_.dimensions(); }
  const Centers& centers() const { return centers_; }

  void take(const Centers& centers) {
    for (std::size_t c = 0; c < centers.size(); c += points_.dimensions())
      lower(centers.data() + c, nearest_, nearest_);
    centers_ = centers;
  }

  void add_by_weight() { take(center_at(by_weight_.draw(random_))); }

  /// `k`: how many there will be, for the message.
  void add(std::size_t k, CenterStart start) {
    const PointDraw by_distance(points_, nearest_);
    if (!(by_distance.total() > 0))
      throw InputError("there are too few different colors for " + std::to_string(k) +
                           " groups: " + std::to_string(count()),
                       "ask for at most " + std::to_string(count()));
    const bool spread = start == CenterStart::kSpread;
    const unsigned draws = spread ? 2 + static_cast<unsigned>(std::log(static_cast<double>(k))) : 1;
    Centers best;
    double least = 1e300;
    for (unsigned draw = 0; draw < draws; ++draw) {
      std::size_t point = (spread ? by_distance : by_weight_).draw(random_);
      // A draw by weight may hit what is a center already.
      if (nearest_[point] <= 0) point = by_distance.draw(random_);
      const Centers candidate = center_at(point);
      lower(candidate.data(), nearest_, lowered_);
      const double left = PointDraw(points_, lowered_).total();
      if (draw > 0 && left >= least) continue;
      least = left;
      best = candidate;
      kept_.swap(lowered_);
    }
    nearest_.swap(kept_);
    centers_.insert(centers_.end(), best.begin(), best.end());
  }

 private:
  Centers center_at(std::size_t point) const {
    Centers center(points_.dimensions());
    copy_point(points_, point, center.data());
    return center;
  }

  /// Squared distances to the nearest center once there is one more.
  void lower(const double* center, const std::vector<double>& before,
             std::vector<double>& after) const {
    for_each_chunk(points_.size, [&](std::size_t, std::size_t begin, std::size_t end) {
      std::vector<const float*> features;
      for (const float* feature : points_.features) features.push_back(feature + begin);
      HWY_DYNAMIC_DISPATCH(nearer_center)
      (features.data(), features.size(), center, end - begin, before.data() + begin,
       after.data() + begin);
    });
  }

  const Points& points_;
  SeededRandom random_;
  std::vector<double> even_;
  PointDraw by_weight_;
  std::vector<double> nearest_, lowered_, kept_;
  Centers centers_;
};

/// One run of k-means.
class Mover {
 public:
  Mover(const Points& points, Centers start)
      : points_(points),
        dimensions_(points.dimensions()),
        k_(start.size() / dimensions_),
        stride_((k_ + kCenterPadding - 1) / kCenterPadding * kCenterPadding),
        centers_(std::move(start)),
        label_(points.size),
        above_(points.size),
        below_(points.size),
        half_way_(k_),
        sums_(k_ * (dimensions_ + 1)) {
    planar_.assign(stride_ * dimensions_, kNowhere);
  }

  KMeansRun run(const KMeansOptions& options, double limit) {
    KMeansRun out;
    assign_all();
    while (out.iterations < options.most_iterations && !out.settled) {
      ++out.iterations;
      const std::vector<double> moves = move();
      const double farthest = *std::max_element(moves.begin(), moves.end());
      assign(moves);
      out.settled = farthest <= limit;
    }
    move();
    out.sum_of_squares = sum_of_squares();
    return out;
  }

  const Centers& centers() const { return centers_; }
  std::vector<double> weights() const {
    std::vector<double> out(k_);
    for (std::size_t c = 0; c < k_; ++c) out[c] = sums_[c * (dimensions_ + 1) + dimensions_];
    return out;
  }

 private:
  /// Sums of features and weights for each center.
  using Sums = std::vector<double>;

  void add(Sums& sums, std::size_t center, std::size_t i, double weight) const {
    double* const to = sums.data() + center * (dimensions_ + 1);
    for (std::size_t f = 0; f < dimensions_; ++f)
      to[f] += weight * static_cast<double>(points_.features[f][i]);
    to[dimensions_] += weight;
  }

  void lay_out() {
    for (std::size_t c = 0; c < k_; ++c)
      for (std::size_t f = 0; f < dimensions_; ++f)
        planar_[f * stride_ + c] = centers_[c * dimensions_ + f];
    for (std::size_t c = 0; c < k_; ++c) {
      double nearest = kFar;
      for (std::size_t other = 0; other < k_; ++other)
        if (other != c)
          nearest =
              std::min(nearest, squared_distance(&centers_[c * dimensions_],
                                                 &centers_[other * dimensions_], dimensions_));
      half_way_[c] = static_cast<float>(0.5 * std::sqrt(nearest)) * kNarrower;
    }
  }

  /// The nearest center of a point, and its bounds.
  void find(std::size_t i, double* point, double* distances) {
    copy_point(points_, i, point);
    HWY_DYNAMIC_DISPATCH(squared_distances)
    (point, dimensions_, planar_.data(), stride_, distances);
    std::size_t best = 0;
    double first = distances[0], second = kFar;
    for (std::size_t c = 1; c < k_; ++c) {
      if (distances[c] < first) {
        second = first;
        first = distances[c];
        best = c;
      } else if (distances[c] < second) {
        second = distances[c];
      }
    }
    label_[i] = static_cast<std::uint8_t>(best);
    above_[i] = static_cast<float>(std::sqrt(first)) * kWider;
    below_[i] = static_cast<float>(std::sqrt(second)) * kNarrower;
  }

  void assign_all() {
    lay_out();
    std::vector<Sums> parts(chunks_of(points_.size));
    for_each_chunk(points_.size, [&](std::size_t chunk, std::size_t begin, std::size_t end) {
      std::vector<double> scratch(dimensions_ + stride_);
      Sums& sums = parts[chunk];
      sums.resize(sums_.size());
      for (std::size_t i = begin; i < end; ++i) {
        find(i, scratch.data(), scratch.data() + dimensions_);
        add(sums, label_[i], i, points_.weights[i]);
      }
    });
    fold(parts);
  }

  /// New groups after the centers moved so far; only what changes is added and taken away.
  void assign(const std::vector<double>& moves) {
    lay_out();
    std::vector<float> own(k_), other(k_);
    for (std::size_t c = 0; c < k_; ++c) {
      double most = 0;
      for (std::size_t o = 0; o < k_; ++o)
        if (o != c) most = std::max(most, moves[o]);
      own[c] = static_cast<float>(moves[c]) * kWider;
      other[c] = static_cast<float>(most) * kWider;
    }
    std::vector<Sums> parts(chunks_of(points_.size));
    for_each_chunk(points_.size, [&](std::size_t chunk, std::size_t begin, std::size_t end) {
      std::vector<double> scratch(dimensions_ + stride_);
      Sums& sums = parts[chunk];
      for (std::size_t i = begin; i < end; ++i) {
        const std::uint8_t before = label_[i];
        const float above = above_[i] = (above_[i] + own[before]) * kWider;
        const float lower = below_[i] - other[before];
        const float below = below_[i] = lower - std::abs(lower) * 1e-6f;
        if (above <= std::max(below, half_way_[before])) continue;
        copy_point(points_, i, scratch.data());
        above_[i] = static_cast<float>(std::sqrt(squared_distance(
                        scratch.data(), &centers_[before * dimensions_], dimensions_))) *
                    kWider;
        if (above_[i] <= std::max(below_[i], half_way_[before])) continue;
        find(i, scratch.data(), scratch.data() + dimensions_);
        if (label_[i] == before) continue;
        if (sums.empty()) sums.resize(sums_.size());
        add(sums, before, i, -points_.weights[i]);
        add(sums, label_[i], i, points_.weights[i]);
      }
    });
    fold(parts);
  }

  void fold(const std::vector<Sums>& parts) {
    for (const Sums& part : parts)
      for (std::size_t s = 0; s < part.size(); ++s) sums_[s] += part[s];
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

  double move_to_farthest(std::size_t center) {
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
    double* const to = &centers_[center * dimensions_];
    const double way = std::sqrt(squared_distance(farthest_point.data(), to, dimensions_));
    std::copy(farthest_point.begin(), farthest_point.end(), to);
    return way;
  }

  double sum_of_squares() const {
    return sum_over_chunks(points_.size, 0.0, [&](std::size_t begin, std::size_t end) {
      std::vector<double> point(dimensions_);
      double sum = 0;
      for (std::size_t i = begin; i < end; ++i) {
        copy_point(points_, i, point.data());
        sum += points_.weights[i] *
               squared_distance(point.data(), &centers_[label_[i] * dimensions_], dimensions_);
      }
      return sum;
    });
  }

  const Points& points_;
  std::size_t dimensions_, k_, stride_;
  Centers centers_;
  std::vector<double> planar_;
  std::vector<std::uint8_t> label_;
  std::vector<float> above_, below_;  // bounds on the distance to the own and the second center
  std::vector<float> half_way_;       // half the way to the nearest other center
  Sums sums_;
};

/// The standard deviation of all points, over all features.
double overall_deviation(const Points& points) {
  double weight = 0;
  for (std::size_t i = 0; i < points.size; ++i) weight += points.weights[i];
  return std::sqrt(total_sum_of_squares(points) / weight);
}

KMeans run_from(const Points& points, Centers start, const KMeansOptions& options, double limit) {
  Mover mover(points, std::move(start));
  const KMeansRun run = mover.run(options, limit);
  return {mover.centers(), mover.weights(), 0, {run}};
}

}  // namespace

double total_sum_of_squares(const Points& points) {
  Mover mover(points, Centers(points.dimensions(), 0.0));
  KMeansOptions once;
  once.most_iterations = 1;
  return mover.run(once, 0).sum_of_squares;
}

Centers starting_centers(const Points& points, std::size_t k, CenterStart start,
                         std::uint64_t seed) {
  CenterDraw draw(points, seed);
  draw.add_by_weight();
  while (draw.count() < k) draw.add(k, start);
  return draw.centers();
}

Centers with_one_more(const Points& points, Centers centers, std::uint64_t seed) {
  CenterDraw draw(points, seed);
  draw.take(centers);
  draw.add(draw.count() + 1, CenterStart::kSpread);
  return draw.centers();
}

KMeans move_centers(const Points& points, Centers start, const KMeansOptions& options) {
  return run_from(points, std::move(start), options, options.movement * overall_deviation(points));
}

KMeans k_means(const Points& points, const KMeansOptions& options,
               const std::vector<Centers>& also) {
  const double limit = options.movement * overall_deviation(points);
  KMeans best;
  std::vector<KMeansRun> runs;
  for (std::size_t r = 0; r < options.restarts + also.size(); ++r) {
    KMeans one = run_from(points,
                          r < options.restarts ? starting_centers(points, options.k, options.start,
                                                                  mixed_bits(options.seed) + r)
                                               : also[r - options.restarts],
                          options, limit);
    runs.push_back(one.runs[0]);
    if (r > 0 && one.sum_of_squares() >= best.sum_of_squares()) continue;
    best = std::move(one);
    best.best = 0;
    best.runs = {runs.back()};
  }
  for (std::size_t r = 0; r < runs.size(); ++r)
    if (runs[r].sum_of_squares == best.runs[0].sum_of_squares) {
      best.best = r;
      break;
    }
  best.runs = std::move(runs);
  return best;
}

}  // namespace chalcedony
#endif
