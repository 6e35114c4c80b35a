#include "core/learn/model.h"

namespace chalcedony {

namespace {

std::vector<MapClass> entries_of(const Model& model) {
  std::vector<MapClass> entries;
  for (const ModelClass& c : model.classes) entries.push_back({c.name, c.color});
  return entries;
}

}  // namespace

std::vector<MapClass> map_classes(const Model& model) { return map_classes(entries_of(model)); }

std::vector<std::string> map_colors(const Model& model) {
  std::vector<std::string> colors;
  for (const MapClass& c : map_classes(model)) colors.push_back(c.color);
  return colors;
}

std::vector<Label> class_numbers(const Model& model) { return class_numbers(entries_of(model)); }

Model scaled(const Model& model) {
  Model out = model;
  if (model.divisors.empty()) return out;
  const Eigen::Map<const Eigen::ArrayXd> divisors(model.divisors.data(),
                                                  static_cast<Eigen::Index>(model.divisors.size()));
  const Eigen::MatrixXd factors = divisors.inverse().matrix().asDiagonal();
  for (ModelClass& c : out.classes) {
    ClassStatistics& s = c.statistics;
    s.mean = factors * s.mean;
    s.smallest = factors * s.smallest;
    s.largest = factors * s.largest;
    s.covariance = factors * s.covariance * factors;
    for (std::size_t i = 0; i < c.samples.values.size(); ++i)
      c.samples.values[i] *= static_cast<float>(1 / model.divisors[i % model.divisors.size()]);
  }
  return out;
}

Eigen::VectorXd smallest_spread(const Model& model) {
  constexpr double kPart = 1e-4;
  const std::vector<Feature> features = features_of(model.features);
  Eigen::VectorXd spread(static_cast<Eigen::Index>(features.size()));
  for (std::size_t f = 0; f < features.size(); ++f) {
    const double divisor = model.divisors.empty() ? 1 : model.divisors[f];
    spread[static_cast<Eigen::Index>(f)] = kPart * features[f].range() / divisor;
  }
  return spread;
}

}  // namespace chalcedony
