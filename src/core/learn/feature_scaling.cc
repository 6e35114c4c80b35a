#include "core/learn/feature_scaling.h"

#include <algorithm>
#include <cmath>

#include "core/feature/features.h"

namespace chalcedony {

FeatureScaling settled(FeatureScaling scaling, const std::vector<Channel>& features) {
  if (scaling != FeatureScaling::kBySpreadWhenUnitsDiffer) return scaling;
  return units_differ(features_of(features)) ? FeatureScaling::kSpread : FeatureScaling::kNone;
}

std::string name_of(FeatureScaling scaling) {
  if (scaling == FeatureScaling::kSpread) return "spread";
  return scaling == FeatureScaling::kRange ? "range" : "none";
}

std::vector<double> divisors_of(const Points& points, FeatureScaling scaling) {
  std::vector<double> divisors;
  if (scaling == FeatureScaling::kNone) return divisors;
  for (const float* feature : points.features) {
    double weight = 0, sum = 0, squares = 0;
    for (std::size_t i = 0; i < points.size; ++i) {
      weight += points.weights[i];
      sum += points.weights[i] * static_cast<double>(feature[i]);
    }
    const double mean = sum / weight;
    for (std::size_t i = 0; i < points.size; ++i)
      squares += points.weights[i] * std::pow(static_cast<double>(feature[i]) - mean, 2);
    const auto [low, high] = std::minmax_element(feature, feature + points.size);
    const double divisor = scaling == FeatureScaling::kRange ? static_cast<double>(*high - *low)
                                                             : std::sqrt(squares / weight);
    divisors.push_back(divisor > 0 ? divisor : 1);
  }
  return divisors;
}

}  // namespace chalcedony
