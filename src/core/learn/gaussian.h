// Classification by the Gaussian of each class: by Mahalanobis distance, and by likelihood.
#ifndef CHALCEDONY_CORE_LEARN_GAUSSIAN_H_
#define CHALCEDONY_CORE_LEARN_GAUSSIAN_H_

#include <memory>
#include <vector>

#include "core/learn/classifier.h"

namespace chalcedony {

/// Each pixel goes to the class whose mean is nearest in units of that class's own spread,
/// (x - m)' C^-1 (x - m). Ties go to the lowest number, a feature that is not a number to no class.
///
/// Errors    InputError naming a class with fewer than features + 2 samples
/// Source    Mahalanobis (1936)
std::unique_ptr<Classifier> make_mahalanobis(const Model& model, const ClassLimits& limits);

/// Each pixel goes to the class that most likely made it: the largest
/// ln P - (ln det C + (x - m)' C^-1 (x - m)) / 2, with the class's prior P.
///
/// Errors    as make_mahalanobis
/// Source    Richards, Remote Sensing Digital Image Analysis (2013), 8.3
std::unique_ptr<Classifier> make_maximum_likelihood(const Model& model, const ClassLimits& limits);

/// What each difference from a class mean adds to the quadratic form, and for likelihoods the
/// determinants, priors and probabilities.
Explanation explain_mahalanobis(const Model& model, const std::vector<double>& features);
Explanation explain_maximum_likelihood(const Model& model, const std::vector<double>& features);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_GAUSSIAN_H_
