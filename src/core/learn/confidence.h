// How sure a classification is of each pixel.
#ifndef CHALCEDONY_CORE_LEARN_CONFIDENCE_H_
#define CHALCEDONY_CORE_LEARN_CONFIDENCE_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/learn/classifier.h"
#include "core/planes.h"

namespace chalcedony {

/// Writes the confidence in the class of each pixel, 0-1; 0 for a pixel without a class. Of methods
/// that know likelihoods it is the probability of the class; of others the margin: 1 less the
/// distance to the class over that to the nearest other one, so 0 on the border of two classes. A
/// model of one class has a margin of 1. One for each thread.
class ConfidenceMeter {
 public:
  explicit ConfidenceMeter(const Classifier& classifier);

  /// Shape     `features` as of Classifier::classify(), which found the `labels`
  void measure(const std::vector<const float*>& features, std::size_t n, const Label* labels,
               float* confidence);

 private:
  const Classifier& classifier_;
  PlaneBuffer buffer_;
  std::vector<float*> planes_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_CONFIDENCE_H_
