#include "core/learn/reach.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <utility>

#include "core/learn/classifier.h"

namespace chalcedony {
namespace {

/// Parts of the axis of distances, of each of several classes. Distances are not negative, so the
/// upper half of their bits is in their order; all that are tiny are in one.
class Buckets {
 public:
  Buckets(const ClassedDistances& points, std::size_t classes)
      : points_(points), each_(bucket_of(farthest(points)) + 1), classes_(classes) {}

  std::size_t each() const { return each_; }
  std::size_t all() const { return classes_ * each_; }
  /// The bucket of a point that has a class.
  std::size_t of(std::size_t i) const {
    return (points_.class_of[i] - std::size_t{1}) * each_ + bucket_of(points_.distances[i]);
  }

 private:
  static constexpr float kTiny = 1e-6f;

  static std::size_t bucket_of(float distance) {
    const auto bits = std::bit_cast<std::uint32_t>(distance > kTiny ? distance : kTiny);
    return (bits >> 16) - (std::bit_cast<std::uint32_t>(kTiny) >> 16);
  }
  static float farthest(const ClassedDistances& points) {
    float most = 0;
    for (const float distance : points.distances) most = std::max(most, distance);
    return most;
  }

  const ClassedDistances& points_;
  std::size_t each_, classes_;
};

/// Calls `use(i)` for every point that has a class.
template <class Use>
void for_each_classed(const ClassedDistances& points, const Use& use) {
  for (std::size_t i = 0; i < points.distances.size(); ++i)
    if (points.class_of[i] != 0) use(i);
}

std::vector<double> pixels_in(const Buckets& buckets, const ClassedDistances& points) {
  std::vector<double> pixels(buckets.all());
  for_each_classed(points, [&](std::size_t i) { pixels[buckets.of(i)] += points.pixels[i]; });
  return pixels;
}

/// Where a share of the pixels of a class is reached.
struct Rank {
  std::size_t bucket = 0;
  double needed = 0;  // pixels of the class
  double before = 0;  // of them in earlier buckets
};

/// The ranks of a class, whose first bucket is `bucket`; none when it has no pixels.
std::vector<Rank> ranks_of(const std::vector<double>& pixels, std::size_t bucket,
                           std::size_t buckets) {
  double all = 0, before = 0;
  for (std::size_t b = bucket; b < bucket + buckets; ++b) all += pixels[b];
  std::vector<Rank> ranks;
  if (all == 0) return ranks;
  for (const double percent : kReachPercents) {
    const double needed = std::ceil(all * percent / 100);
    while (before + pixels[bucket] < needed) before += pixels[bucket++];
    ranks.push_back({bucket, needed, before});
  }
  return ranks;
}

using Distance = std::pair<float, double>;  // and how many pixels lie there

double reached(const Rank& rank, const std::vector<Distance>& sorted) {
  double within = rank.before;
  for (const Distance& distance : sorted) {
    within += distance.second;
    if (within >= rank.needed) return distance.first;
  }
  return sorted.back().first;
}

}  // namespace

std::vector<std::vector<double>> reaches_of(const ClassedDistances& points, std::size_t classes) {
  const Buckets buckets(points, classes);
  const std::vector<double> pixels = pixels_in(buckets, points);
  std::vector<std::vector<Rank>> ranks;
  std::vector<std::uint16_t> list_of(buckets.all());  // 0: not looked into
  std::vector<std::vector<Distance>> lists;
  for (std::size_t c = 0; c < classes; ++c) {
    ranks.push_back(ranks_of(pixels, c * buckets.each(), buckets.each()));
    for (const Rank& rank : ranks.back()) {
      if (list_of[rank.bucket] != 0) continue;
      lists.emplace_back();
      list_of[rank.bucket] = static_cast<std::uint16_t>(lists.size());
    }
  }
  // Only the buckets in which a share of the pixels is reached are sorted.
  for_each_classed(points, [&](std::size_t i) {
    if (const std::uint16_t list = list_of[buckets.of(i)]; list != 0)
      lists[list - 1].emplace_back(points.distances[i], points.pixels[i]);
  });
  for (std::vector<Distance>& list : lists) std::sort(list.begin(), list.end());
  std::vector<std::vector<double>> reaches;
  for (const std::vector<Rank>& its : ranks) {
    std::vector<double>& reach = reaches.emplace_back();
    for (const Rank& rank : its) reach.push_back(reached(rank, lists[list_of[rank.bucket] - 1]));
    reach.resize(kReachPercents.size());
  }
  return reaches;
}

void measure_reach(Model& model, const SampleTable& samples) {
  const auto classifier = make_classifier(model);
  for (std::size_t c = 0; c < model.classes.size(); ++c) {
    const ClassSamples& own = samples.of(c);
    const std::size_t count = own.counts.size();
    std::vector<float> distances(count + kBlockPixels + kPlanePadding);
    for_each_sample_block(
        own, model.divisors,
        [&](std::size_t first, std::size_t n, const std::vector<const float*>& planes) {
          classifier->sample_distances(c, planes, n, distances.data() + first);
        });
    const std::vector<std::uint8_t> ones(count, 1);
    const std::vector<double> pixels(own.counts.begin(), own.counts.end());
    model.classes[c].reach = reaches_of({{distances.data(), count}, ones, pixels}, 1).front();
  }
}

}  // namespace chalcedony
