#include "core/cluster/drawn_points.h"

namespace chalcedony {

DrawnPoints::DrawnPoints(const Points& points, std::uint64_t seed, std::size_t most)
    : all_(points), drawn_(points), all_runs_(points) {
  if (points.size <= most) return;
  features_.resize(points.dimensions());
  for (const std::size_t i : even_draw(points, most, seed))
    for (std::size_t f = 0; f < features_.size(); ++f)
      features_[f].push_back(points.features[f][i]);
  weights_.assign(features_[0].size(), 1.0);
  drawn_ = {weights_.size(), {}, weights_.data()};
  for (const auto& feature : features_) drawn_.features.push_back(feature.data());
  drawn_runs_.emplace(drawn_);
}

}  // namespace chalcedony
