#include "core/learn/classifier.h"

#include <algorithm>
#include <limits>
#include <utility>

#include "core/error.h"
#include "core/learn/gaussian.h"
#include "core/learn/minimum_distance.h"
#include "core/learn/nearest_neighbor.h"
#include "core/learn/parallelepiped.h"
#include "core/nearest_name.h"
#include "core/planes.h"

namespace chalcedony {

namespace {

/// Several entries of a model that are one class.
class MergedClasses : public Classifier {
 public:
  MergedClasses(std::unique_ptr<Classifier> entries, const std::vector<Label>& numbers)
      : entries_(std::move(entries)),
        entry_count_(numbers.size()),
        class_count_(*std::max_element(numbers.begin(), numbers.end())),
        number_of_{0} {
    number_of_.insert(number_of_.end(), numbers.begin(), numbers.end());
  }

  void classify(const std::vector<const float*>& features, std::size_t n, Label* labels,
                const PixelFlags& flags) const override {
    entries_->classify(features, n, labels, flags);
    for (std::size_t i = 0; i < n; ++i) labels[i] = number_of_[labels[i]];
  }

  void distances(const std::vector<const float*>& features, std::size_t n,
                 const std::vector<float*>& planes) const override {
    for (float* const plane : planes) std::fill_n(plane, n, std::numeric_limits<float>::infinity());
    over_entries(
        planes, n, [&](const auto& entries) { entries_->distances(features, n, entries); },
        [](float own, float entry) { return std::min(own, entry); });
  }

  void sample_distances(std::size_t entry, const std::vector<const float*>& features, std::size_t n,
                        float* out) const override {
    entries_->sample_distances(entry, features, n, out);
  }

  void probabilities(const std::vector<const float*>& features, std::size_t n,
                     const std::vector<float*>& planes) const override {
    for (float* const plane : planes) std::fill_n(plane, n, 0.0f);
    over_entries(
        planes, n, [&](const auto& entries) { entries_->probabilities(features, n, entries); },
        [](float own, float entry) { return own + entry; });
  }

  bool knows_likelihood() const override { return entries_->knows_likelihood(); }
  bool is_slow() const override { return entries_->is_slow(); }
  std::size_t classes() const override { return class_count_; }

 private:
  /// Makes the planes of the entries and folds each into the plane of its class.
  template <class Make, class Fold>
  void over_entries(const std::vector<float*>& planes, std::size_t n, const Make& make,
                    const Fold& fold) const {
    PlaneBuffer buffer(entry_count_);
    std::vector<float*> entries;
    for (std::size_t e = 0; e < entry_count_; ++e) entries.push_back(buffer.plane(e));
    make(entries);
    for (std::size_t e = 0; e < entry_count_; ++e) {
      float* const plane = planes[number_of_[e + 1] - 1u];
      for (std::size_t i = 0; i < n; ++i) plane[i] = fold(plane[i], entries[e][i]);
    }
  }

  std::unique_ptr<Classifier> entries_;
  std::size_t entry_count_, class_count_;
  std::vector<Label> number_of_;  // of an entry, 1 for the first; of 0 it is 0
};

/// The reach of every entry at one of kReachPercents; nothing when an entry's is not known.
std::vector<double> reach_at(const Model& model, double percent) {
  const auto at = std::find(kReachPercents.begin(), kReachPercents.end(), percent);
  std::vector<double> out;
  for (const ModelClass& c : model.classes) {
    if (c.reach.empty()) return {};
    out.push_back(c.reach[static_cast<std::size_t>(at - kReachPercents.begin())]);
  }
  return out;
}

ClassLimits limits_of(const Model& model, double reject_percent) {
  constexpr double kFarPercent = 99;
  ClassLimits limits{{}, reach_at(model, kFarPercent)};
  if (reject_percent == 0) return limits;
  if (limits.known.empty())
    throw InputError("the model does not know how far its samples reach",
                     "train again with this version, or leave out --reject");
  limits.accepted = reach_at(model, reject_percent);
  return limits;
}

}  // namespace

void Classifier::sample_distances(std::size_t entry, const std::vector<const float*>& features,
                                  std::size_t n, float* out) const {
  PlaneBuffer buffer(classes());
  std::vector<float*> planes;
  for (std::size_t c = 0; c < classes(); ++c) planes.push_back(buffer.plane(c));
  distances(features, n, planes);
  std::copy_n(planes[entry], n, out);
}

void Classifier::probabilities(const std::vector<const float*>& features, std::size_t n,
                               const std::vector<float*>& planes) const {
  std::vector<Label> labels(n + kPlanePadding);
  classify(features, n, labels.data());
  for (std::size_t c = 0; c < planes.size(); ++c)
    for (std::size_t i = 0; i < n; ++i) planes[c][i] = labels[i] == c + 1 ? 1.0f : 0.0f;
}

void winner_probabilities(const std::vector<float*>& planes, std::size_t n, float* out) {
  if (out != planes.front()) std::copy_n(planes.front(), n, out);
  for (const float* const plane : planes)
    for (std::size_t i = 0; i < n; ++i) out[i] = out[i] < plane[i] ? plane[i] : out[i];
}

const std::vector<ClassifierMethod>& all_classifier_methods() {
  static const std::vector<ClassifierMethod> methods{
      {"minimum-distance", make_minimum_distance, explain_minimum_distance},
      {"parallelepiped", make_parallelepiped, explain_parallelepiped},
      {"mahalanobis", make_mahalanobis, explain_mahalanobis},
      {"maximum-likelihood", make_maximum_likelihood, explain_maximum_likelihood},
      {"nearest-neighbor", make_nearest_neighbor, explain_nearest_neighbor},
  };
  return methods;
}

std::vector<std::string> classifier_methods() {
  std::vector<std::string> names;
  for (const ClassifierMethod& method : all_classifier_methods()) names.emplace_back(method.name);
  return names;
}

std::unique_ptr<Classifier> make_classifier(const Model& model, double reject_percent) {
  auto classifier = method_of(model).make(scaled(model), limits_of(model, reject_percent));
  if (map_classes(model).size() == model.classes.size()) return classifier;
  return std::make_unique<MergedClasses>(std::move(classifier), class_numbers(model));
}

const ClassifierMethod& method_of(const Model& model) {
  for (const ClassifierMethod& method : all_classifier_methods())
    if (method.name == model.method) return method;
  throw InputError("the method '" + model.method + "' is not known to this version",
                   suggest_name(model.method, classifier_methods()));
}

}  // namespace chalcedony
