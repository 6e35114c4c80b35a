#include "core/cluster/points.h"

#include <set>
#include <utility>

#include "core/cluster/seeded_random.h"

namespace chalcedony {

std::vector<std::size_t> even_draw(const Points& points, std::size_t count, std::uint64_t seed) {
  double all = 0;
  for (std::size_t i = 0; i < points.size; ++i) all += points.weights[i];
  const double step = all / static_cast<double>(count);
  double next = SeededRandom(seed).next() * step, passed = 0;
  std::vector<std::size_t> drawn;
  for (std::size_t i = 0; i < points.size; ++i)
    for (passed += points.weights[i]; next < passed && drawn.size() < count; next += step)
      drawn.push_back(i);
  return drawn;
}

std::size_t differing_points(const Points& points, std::size_t most) {
  std::set<std::vector<float>> seen;
  for (std::size_t i = 0; i < points.size && seen.size() < most; ++i) {
    std::vector<float> values;
    for (const float* feature : points.features) values.push_back(feature[i]);
    seen.insert(std::move(values));
  }
  return seen.size();
}

DrawnPoints::DrawnPoints(const Points& points, std::uint64_t seed, std::size_t most)
    : all_(points), drawn_(points) {
  if (points.size <= most) return;
  features_.resize(points.dimensions());
  for (const std::size_t i : even_draw(points, most, seed))
    for (std::size_t f = 0; f < features_.size(); ++f)
      features_[f].push_back(points.features[f][i]);
  weights_.assign(features_[0].size(), 1.0);
  drawn_ = {weights_.size(), {}, weights_.data()};
  for (const auto& feature : features_) drawn_.features.push_back(feature.data());
}

}  // namespace chalcedony
