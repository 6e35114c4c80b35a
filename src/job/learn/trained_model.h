// Models made of sample pixels.
#ifndef CHALCEDONY_JOB_LEARN_TRAINED_MODEL_H_
#define CHALCEDONY_JOB_LEARN_TRAINED_MODEL_H_

#include <cstddef>
#include <string>
#include <utility>
#include <vector>

#include "core/learn/feature_scaling.h"
#include "core/learn/model.h"
#include "core/learn/sample_table.h"

namespace chalcedony {

/// How frequent the classes are taken to be.
enum class Priors { kEven, kSamples, kGiven };

/// How a model is made of samples.
struct TrainingRules {
  double box_spread = 0;      // parallelepiped; see Model
  std::size_t neighbors = 7;  // nearest-neighbor
  Priors priors = Priors::kEven;
  std::vector<std::pair<std::string, double>> given_priors;  // kGiven: class and number
  FeatureScaling scaling = FeatureScaling::kBySpreadWhenUnitsDiffer;
};

/// The most distinct sample colors a nearest-neighbor model holds.
inline constexpr std::size_t kMostNeighborRows = 65536;

/// A model by `method`, with its reach. `frame` has the features, the pictures and the names and
/// colors of the classes, which are those of the table.
///
/// Errors    InputError naming the class whose samples do not do
Model trained_model(Model frame, const std::string& method, const SampleTable& samples,
                    const TrainingRules& rules);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_TRAINED_MODEL_H_
