#include "core/learn/classifier.h"

#include "core/error.h"
#include "core/learn/gaussian.h"
#include "core/learn/minimum_distance.h"
#include "core/nearest_name.h"

namespace chalcedony {

const std::vector<ClassifierMethod>& all_classifier_methods() {
  static const std::vector<ClassifierMethod> methods{
      {"minimum-distance", make_minimum_distance},
      {"mahalanobis", make_mahalanobis},
      {"maximum-likelihood", make_maximum_likelihood},
  };
  return methods;
}

std::vector<std::string> classifier_methods() {
  std::vector<std::string> names;
  for (const ClassifierMethod& method : all_classifier_methods()) names.emplace_back(method.name);
  return names;
}

std::unique_ptr<Classifier> make_classifier(const Model& model) {
  for (const ClassifierMethod& method : all_classifier_methods())
    if (method.name == model.method) return method.make(model);
  throw InputError("the method '" + model.method + "' is not known to this version",
                   suggest_name(model.method, classifier_methods()));
}

}  // namespace chalcedony
