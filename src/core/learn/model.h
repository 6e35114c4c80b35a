// A trained classifier: what it looks at and what it knows of each class.
#ifndef CHALCEDONY_CORE_LEARN_MODEL_H_
#define CHALCEDONY_CORE_LEARN_MODEL_H_

#include <cstdint>
#include <string>
#include <vector>

#include "core/color/channel.h"
#include "core/learn/class_statistics.h"
#include "core/learn/sample_shape.h"

namespace chalcedony {

struct ModelClass {
  std::string name;
  std::string color;  // CSS hexadecimal
  ClassStatistics statistics;
  double prior = 1;  // how frequent it is, 0-1; the same for all unless said otherwise
};

/// A picture the model learned from, with the regions it looked at there.
struct TrainingPicture {
  std::string name;  // of its file, without folders
  std::uint32_t width = 0;
  std::uint32_t height = 0;
  SampleSet samples;
};

struct Model {
  std::string method;             // "minimum-distance"
  std::vector<Channel> features;  // in the contract's units
  std::vector<ModelClass> classes;
  std::vector<TrainingPicture> trained_on;
};

/// A spread for each feature that is far below what matters, a ten-thousandth of its usual range:
/// added in quadrature, it gives a class of one flat color a density.
Eigen::VectorXd smallest_spread(const std::vector<Channel>& features);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_MODEL_H_
