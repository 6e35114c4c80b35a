#include "core/learn/classifier.h"

#include <algorithm>
#include <array>
#include <utility>

#include "core/error.h"
#include "core/learn/gaussian.h"
#include "core/learn/minimum_distance.h"
#include "core/learn/parallelepiped.h"
#include "core/nearest_name.h"
#include "core/pixel/planes.h"

namespace chalcedony {

namespace {

/// Several entries of a model that are one class.
class MergedClasses : public Classifier {
 public:
  MergedClasses(std::unique_ptr<Classifier> entries, const std::vector<std::uint8_t>& numbers)
      : entries_(std::move(entries)), entry_count_(numbers.size()) {
    std::copy(numbers.begin(), numbers.end(), number_of_.begin() + 1);
  }

  void classify(const std::vector<const float*>& features, std::size_t n,
                std::uint8_t* labels) const override {
    entries_->classify(features, n, labels);
    for (std::size_t i = 0; i < n; ++i) labels[i] = number_of_[labels[i]];
  }

  bool contested(const std::vector<const float*>& features, std::size_t n,
                 std::uint8_t* flags) const override {
    return entries_->contested(features, n, flags);
  }

  void probabilities(const std::vector<const float*>& features, std::size_t n,
                     const std::vector<float*>& planes) const override {
    PlaneBuffer buffer(entry_count_);
    std::vector<float*> entries;
    for (std::size_t e = 0; e < entry_count_; ++e) entries.push_back(buffer.plane(e));
    entries_->probabilities(features, n, entries);
    for (float* const plane : planes) std::fill_n(plane, n, 0.0f);
    for (std::size_t e = 0; e < entry_count_; ++e) {
      float* const plane = planes[number_of_[e + 1] - 1u];
      for (std::size_t i = 0; i < n; ++i) plane[i] += entries[e][i];
    }
  }

 private:
  std::unique_ptr<Classifier> entries_;
  std::size_t entry_count_;
  std::array<std::uint8_t, 256> number_of_{};
};

}  // namespace

void Classifier::probabilities(const std::vector<const float*>& features, std::size_t n,
                               const std::vector<float*>& planes) const {
  std::vector<std::uint8_t> labels(n + kPlanePadding);
  classify(features, n, labels.data());
  for (std::size_t c = 0; c < planes.size(); ++c)
    for (std::size_t i = 0; i < n; ++i) planes[c][i] = labels[i] == c + 1 ? 1.0f : 0.0f;
}

const std::vector<ClassifierMethod>& all_classifier_methods() {
  static const std::vector<ClassifierMethod> methods{
      {"minimum-distance", make_minimum_distance},
      {"parallelepiped", make_parallelepiped},
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
  for (const ClassifierMethod& method : all_classifier_methods()) {
    if (method.name != model.method) continue;
    auto classifier = method.make(scaled(model));
    if (map_classes(model).size() == model.classes.size()) return classifier;
    return std::make_unique<MergedClasses>(std::move(classifier), class_numbers(model));
  }
  throw InputError("the method '" + model.method + "' is not known to this version",
                   suggest_name(model.method, classifier_methods()));
}

}  // namespace chalcedony
