#include "core/cluster/starting_centers.h"

#include <algorithm>
#include <cmath>
#include <string>
#include <utility>

#include "core/cluster/seeded_random.h"
#include "core/error.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cluster/starting_centers.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/cluster/point_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// What each of n squared distances becomes with one more center.
void nearer_center(const float* const* features, std::size_t dimensions, const double* center,
                   std::size_t n, const double* before, double* after) {
  const hn::CappedTag<double, 8> d;
  std::size_t i = 0;
  for (; i + hn::Lanes(d) <= n; i += hn::Lanes(d)) {
    const auto sum = squared_distances(d, features, dimensions, center, i);
    hn::StoreU(hn::Min(sum, hn::LoadU(d, before + i)), d, after + i);
  }
  for (; i < n; ++i)
    after[i] = std::min(before[i], squared_distance(features, dimensions, center, i));
}

double sum_of_products(const double* a, const double* b, std::size_t n) {
  return sum_in_parts(n, [&](std::size_t i) { return a[i] * b[i]; });
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(nearer_center);
HWY_EXPORT(sum_of_products);

/// Draws points with a chance in proportion to weight times `parts`, which sum up chunk by chunk.
class PointDraw {
 public:
  PointDraw(const Points& points, const std::vector<double>& parts)
      : points_(points), parts_(parts), sums_(chunks_of(points.size)) {
    for_each_chunk(points.size, [&](std::size_t chunk, std::size_t begin, std::size_t end) {
      sums_[chunk] = HWY_DYNAMIC_DISPATCH(sum_of_products)(points.weights + begin,
                                                           parts.data() + begin, end - begin);
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

}  // namespace

Centers starting_centers(const DrawnPoints& points, std::size_t k, CenterStart start,
                         std::uint64_t seed) {
  const auto draw_from = [&](const Points& from) {
    CenterDraw draw(from, seed);
    draw.add_by_weight();
    while (draw.count() < k) draw.add(k, start);
    return draw.centers();
  };
  try {
    return draw_from(points.drawn());
  } catch (const InputError&) {
    return draw_from(points.all());  // rare colors may not have been drawn
  }
}

Centers with_one_more(const Points& points, Centers centers, std::uint64_t seed) {
  CenterDraw draw(points, seed);
  draw.take(centers);
  draw.add(draw.count() + 1, CenterStart::kSpread);
  return draw.centers();
}

}  // namespace chalcedony
#endif
