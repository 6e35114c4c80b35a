// Classification by the sample pixels that are nearest.
#ifndef CHALCEDONY_CORE_LEARN_NEAREST_NEIGHBOR_H_
#define CHALCEDONY_CORE_LEARN_NEAREST_NEIGHBOR_H_

#include <memory>

#include "core/learn/classifier.h"

namespace chalcedony {

/// Each pixel goes to the class that most of the model.neighbors nearest sample pixels are of, by
/// Euclidean distance over the features; exact. Samples at the same distance count in the order of
/// their classes, and equal votes go to the lowest number. The distance to a class is that to its
/// nearest sample.
///
/// Errors    InputError for a model without sample pixels
/// Source    Cover and Hart (1967)
std::unique_ptr<Classifier> make_nearest_neighbor(const Model& model, const ClassLimits& limits);

/// The nearest sample pixels and what they vote for.
Explanation explain_nearest_neighbor(const Model& model, const std::vector<double>& features);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_NEAREST_NEIGHBOR_H_
