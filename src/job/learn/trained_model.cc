#include "job/learn/trained_model.h"

#include <algorithm>
#include <numeric>

#include "core/error.h"
#include "core/learn/classifier.h"
#include "core/learn/reach.h"

namespace chalcedony {
namespace {

double given_prior(const TrainingRules& rules, const std::string& name) {
  for (const auto& [given, prior] : rules.given_priors)
    if (given == name) return prior;
  throw InputError("--priors says nothing of class '" + name + "'",
                   "give every class a number, as in " + name + "=0.2");
}

void set_priors(Model& model, const TrainingRules& rules) {
  double all = 0;
  for (ModelClass& c : model.classes) {
    if (rules.priors == Priors::kSamples) c.prior = static_cast<double>(c.statistics.count);
    if (rules.priors == Priors::kGiven) c.prior = given_prior(rules, c.name);
    all += c.prior;
  }
  for (ModelClass& c : model.classes) c.prior /= all;
}

/// The divisors of the features over all sample pixels.
void set_scaling(Model& model, const SampleTable& samples, const TrainingRules& rules) {
  const FeatureScaling scaling = settled(rules.scaling, model.features);
  std::vector<std::vector<float>> values(samples.features());
  std::vector<double> weights;
  for (std::size_t c = 0; c < samples.classes(); ++c) {
    const ClassSamples& own = samples.of(c);
    for (std::size_t i = 0; i < own.rows(); ++i) {
      for (std::size_t f = 0; f < values.size(); ++f) values[f].push_back(own.row(i)[f]);
      weights.push_back(static_cast<double>(own.counts[i]));
    }
  }
  Points points{weights.size(), {}, weights.data()};
  for (const auto& feature : values) points.features.push_back(feature.data());
  model.scaling = name_of(scaling);
  model.divisors = divisors_of(points, scaling);
}

/// The samples of every class, thinned out evenly when there are too many.
void hold_samples(Model& model, const SampleTable& samples) {
  SampleTable held(samples.features(), kMostNeighborRows);
  std::vector<std::size_t> same(samples.classes());
  std::iota(same.begin(), same.end(), std::size_t{0});
  held.add(samples, same);
  held.join_equal_rows();
  for (std::size_t c = 0; c < model.classes.size(); ++c) {
    model.classes[c].samples = held.of(c);
    if (held.of(c).rows() == 0)
      throw InputError("class '" + model.classes[c].name + "' has too few sample pixels beside " +
                           std::to_string(samples.rows()) + " sample colors of the others",
                       "draw more of it or less of the others");
  }
}

}  // namespace

Model trained_model(Model frame, const std::string& method, const SampleTable& samples,
                    const TrainingRules& rules) {
  Model model = std::move(frame);
  model.method = method;
  if (method == "parallelepiped") model.box_spread = rules.box_spread;
  for (std::size_t c = 0; c < model.classes.size(); ++c)
    model.classes[c].statistics = samples.statistics(c);
  set_priors(model, rules);
  set_scaling(model, samples, rules);
  if (method == "nearest-neighbor") {
    model.neighbors = rules.neighbors;
    hold_samples(model, samples);
  }
  measure_reach(model, samples);
  return model;
}

}  // namespace chalcedony
