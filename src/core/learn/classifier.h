// Assigns each pixel of a Block to a class of a model.
#ifndef CHALCEDONY_CORE_LEARN_CLASSIFIER_H_
#define CHALCEDONY_CORE_LEARN_CLASSIFIER_H_

#include <cstddef>
#include <cstdint>
#include <memory>
#include <string_view>
#include <vector>

#include "core/learn/model.h"

namespace chalcedony {

/// One method of classification with one model, ready to run. Const, so all threads share it.
class Classifier {
 public:
  Classifier() = default;
  Classifier(const Classifier&) = delete;
  Classifier& operator=(const Classifier&) = delete;
  virtual ~Classifier() = default;

  /// Writes for each of n pixels the number of its class (1 is the first), or 0 for none.
  ///
  /// Shape     one plane for each feature of features_of(model.features), divided as the model
  ///           says and padded as in planes.h; `labels` has room for n rounded up to the padding
  virtual void classify(const std::vector<const float*>& features, std::size_t n,
                        std::uint8_t* labels) const = 0;

  /// Writes for each of n pixels how likely it belongs to each class, 0-1, summing to 1; all 0 for
  /// a pixel without a class. A method that knows no likelihood gives 1 to the class it says.
  ///
  /// Shape     one plane for each class of map_classes(), padded as the features are
  virtual void probabilities(const std::vector<const float*>& features, std::size_t n,
                             const std::vector<float*>& planes) const;

  /// Writes 1 for each of n pixels that several classes would take, else 0. False, and nothing is
  /// written, for a method in which every pixel has one best class.
  virtual bool contested(const std::vector<const float*>&, std::size_t, std::uint8_t*) const {
    return false;
  }
};

/// A method by its name, and how to make its classifier from a model that is scaled.
struct ClassifierMethod {
  std::string_view name;
  std::unique_ptr<Classifier> (*make)(const Model& model);
};

/// Every method there is.
const std::vector<ClassifierMethod>& all_classifier_methods();

/// Their names.
std::vector<std::string> classifier_methods();

/// The classifier of the model's method; its numbers are those of map_classes().
///
/// Errors    InputError for a method this version does not know, and what the method refuses
std::unique_ptr<Classifier> make_classifier(const Model& model);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_CLASSIFIER_H_
