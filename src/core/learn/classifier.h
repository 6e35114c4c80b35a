// Assigns each pixel of a Block to a class of a model.
#ifndef CHALCEDONY_CORE_LEARN_CLASSIFIER_H_
#define CHALCEDONY_CORE_LEARN_CLASSIFIER_H_

#include <cstddef>
#include <cstdint>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "core/learn/explanation.h"
#include "core/learn/model.h"
#include "core/pixel/label.h"

namespace chalcedony {

/// How far from each entry of a model a pixel may lie, in the method's own measure; empty for no
/// limit.
struct ClassLimits {
  std::vector<double> accepted;  // farther from its own class, a pixel gets none
  std::vector<double> known;     // farther from every class than this, a pixel is far
};

/// Where to write 1 or 0 for each pixel, besides its class; null for what is not asked for.
struct PixelFlags {
  std::uint8_t* far = nullptr;        // beyond the limit of every class
  std::uint8_t* contested = nullptr;  // several classes would take it; never of a method in which
                                      // every pixel has one best class
};

/// One method of classification with one model, ready to run. Const, so all threads share it.
class Classifier {
 public:
  Classifier() = default;
  Classifier(const Classifier&) = delete;
  Classifier& operator=(const Classifier&) = delete;
  virtual ~Classifier() = default;

  /// Writes for each of n pixels the number of its class (1 is the first), or 0 for none, and the
  /// flags that are asked for.
  ///
  /// Shape     one plane for each feature of features_of(model.features), divided as the model
  ///           says and padded as in planes.h; `labels` and flags have room for n rounded up to
  ///           the padding
  virtual void classify(const std::vector<const float*>& features, std::size_t n, Label* labels,
                        const PixelFlags& flags = {}) const = 0;

  /// Writes for each of n pixels how far it lies from each class, in the method's own measure.
  ///
  /// Shape     one plane for each class of map_classes(), padded as the features are
  virtual void distances(const std::vector<const float*>& features, std::size_t n,
                         const std::vector<float*>& planes) const = 0;

  /// Writes how far each of n samples of an entry of the model (0 is the first) lies from that
  /// entry, itself left out where the samples themselves are the model.
  virtual void sample_distances(std::size_t entry, const std::vector<const float*>& features,
                                std::size_t n, float* out) const;

  /// Whether probabilities() knows more than the class.
  virtual bool knows_likelihood() const { return false; }

  /// Writes for each of n pixels how likely it belongs to each class, 0-1, summing to 1; all 0 for
  /// a pixel without a class. A method that knows no likelihood gives 1 to the class it says.
  ///
  /// Shape     as distances()
  virtual void probabilities(const std::vector<const float*>& features, std::size_t n,
                             const std::vector<float*>& planes) const;

  /// Whether it pays to remember what was found for a color.
  virtual bool is_slow() const { return false; }

  /// How many planes distances() and probabilities() write.
  virtual std::size_t classes() const = 0;
};

/// Writes for each of n pixels the largest of its probabilities(); may be one of the planes.
void winner_probabilities(const std::vector<float*>& planes, std::size_t n, float* out);

/// A method by its name, and how to make its classifier from a model that is scaled.
struct ClassifierMethod {
  std::string_view name;
  std::unique_ptr<Classifier> (*make)(const Model& model, const ClassLimits& limits);
  /// The arithmetic of one pixel in double, from a scaled model and divided features. It says of
  /// every entry how good it is; limits stay out of it.
  Explanation (*explain)(const Model& model, const std::vector<double>& features);
};

/// Every method there is.
const std::vector<ClassifierMethod>& all_classifier_methods();

/// Their names.
std::vector<std::string> classifier_methods();

/// The method of a model.
///
/// Errors    InputError for a method this version does not know
const ClassifierMethod& method_of(const Model& model);

/// The classifier of the model's method; its numbers are those of map_classes(). Pixels farther
/// from every class than 99 % of its samples are far, when the model knows how far that is.
///
/// `reject_percent`: one of kReachPercents; a pixel farther from its class than so many percent of
/// the class's samples gets none. 0: every pixel gets one, but for methods that reject by nature.
///
/// Errors    InputError for a method this version does not know, for --reject with a model that
///           does not know its reach, and what the method refuses
std::unique_ptr<Classifier> make_classifier(const Model& model, double reject_percent = 0);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_CLASSIFIER_H_
