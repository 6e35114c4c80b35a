#include "core/cluster/point_set.h"

#include <algorithm>
#include <cmath>

#include "core/planes.h"

namespace chalcedony {

PointSet::PointSet(std::size_t features) : planes_(features) {}

PointSet::~PointSet() = default;

void PointSet::grow(std::size_t n) {
  const std::size_t all = size() + n;
  weights_.resize(all);
  for (auto& plane : planes_) {
    plane.reserve(all + kPlanePadding);  // as pad() needs
    plane.resize(all);
  }
}

template <class Weight>
void PointSet::set(std::size_t first, std::size_t n, const std::vector<const float*>& values,
                   const Weight* weights) {
  for (std::size_t f = 0; f < planes_.size(); ++f)
    std::copy_n(values[f], n, planes_[f].data() + first);
  std::copy_n(weights, n, weights_.data() + first);
}

template void PointSet::set(std::size_t, std::size_t, const std::vector<const float*>&,
                            const std::uint32_t*);
template void PointSet::set(std::size_t, std::size_t, const std::vector<const float*>&,
                            const std::uint64_t*);

void PointSet::append(const float* values, double weight) {
  for (std::size_t f = 0; f < planes_.size(); ++f) planes_[f].push_back(values[f]);
  weights_.push_back(weight);
}

double PointSet::remove_incomplete(std::size_t first) {
  double removed = 0;
  std::size_t to = first;
  for (std::size_t i = first; i < weights_.size(); ++i) {
    if (std::any_of(planes_.begin(), planes_.end(),
                    [&](const auto& plane) { return std::isnan(plane[i]); })) {
      removed += weights_[i];
      continue;
    }
    for (auto& plane : planes_) plane[to] = plane[i];
    weights_[to++] = weights_[i];
  }
  weights_.resize(to);
  for (auto& plane : planes_) plane.resize(to);
  return removed;
}

void PointSet::multiply(std::size_t feature, float factor) {
  for (float& value : planes_[feature]) value *= factor;
}

void PointSet::pad() {
  for (auto& plane : planes_) plane.resize(size() + kPlanePadding, 0.0f);
}

Points PointSet::first_features(std::size_t count) const {
  Points points{size(), {}, weights()};
  for (std::size_t f = 0; f < count; ++f) points.features.push_back(plane(f).data());
  return points;
}

}  // namespace chalcedony
