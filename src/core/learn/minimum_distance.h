// Minimum distance to class means.
#ifndef CHALCEDONY_CORE_LEARN_MINIMUM_DISTANCE_H_
#define CHALCEDONY_CORE_LEARN_MINIMUM_DISTANCE_H_

#include <memory>
#include <vector>

#include "core/learn/classifier.h"

namespace chalcedony {

/// Each pixel goes to the class whose mean is nearest by Euclidean distance over the features;
/// ties go to the lowest number, a feature that is not a number to no class.
std::unique_ptr<Classifier> make_minimum_distance(const Model& model, const ClassLimits& limits);

/// The squared differences from every class mean.
Explanation explain_minimum_distance(const Model& model, const std::vector<double>& features);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_MINIMUM_DISTANCE_H_
