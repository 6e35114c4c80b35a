// A trained classifier: what it looks at and what it knows of each class.
#ifndef CHALCEDONY_CORE_LEARN_MODEL_H_
#define CHALCEDONY_CORE_LEARN_MODEL_H_

#include <array>
#include <cstdint>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/feature/features.h"
#include "core/learn/class_samples.h"
#include "core/learn/class_statistics.h"
#include "core/learn/map_class.h"
#include "core/learn/sample_shape.h"
#include "core/pixel/label.h"

namespace chalcedony {

/// Percent of the samples of a class whose reach a model knows.
inline constexpr std::array<double, 5> kReachPercents{90, 95, 99, 99.9, 100};

struct ModelClass {
  std::string name;
  std::string color;  // CSS hexadecimal
  ClassStatistics statistics;
  double prior = 1;  // how frequent it is, 0-1; the same for all unless said otherwise
  std::vector<double> reach = {};  // the distances, in the method's own measure, within which
                                   // kReachPercents of its samples lie; empty: not known
  ClassSamples samples = {};       // of nearest-neighbor only; not divided
};

/// A picture the model learned from, with the regions it looked at there.
struct TrainingPicture {
  std::string name;  // of its file, without folders
  std::uint32_t width = 0;
  std::uint32_t height = 0;
  SampleSet samples;
  std::size_t channels = 0;  // as stored, alpha included; 0: not known
  std::string depth = {};    // "8", "16" or "float"; empty: not known
};

struct Model {
  std::string method;                 // "minimum-distance"
  std::vector<Channel> features;      // see features_of(); statistics are in the contract's units
  std::string scaling = "none";       // how the divisors were found
  std::vector<double> divisors = {};  // of each feature, before distances; empty for none
  double box_spread = 0;      // of boxes: standard deviations to both sides; 0: the samples' range
  std::size_t neighbors = 0;  // of nearest-neighbor: how many vote
  std::vector<ModelClass> classes;  // at most kMostClasses
  std::vector<TrainingPicture> trained_on;
};

/// The classes of the maps of a model, as its entries make them.
std::vector<MapClass> map_classes(const Model& model);

/// Their colors.
std::vector<std::string> map_colors(const Model& model);

/// For each entry of `classes` the number of its class in a map, 1 for the first.
std::vector<Label> class_numbers(const Model& model);

/// The same model with its statistics divided as its features are.
Model scaled(const Model& model);

/// A spread for each feature, divided as the model says, that is far below what matters: a
/// ten-thousandth of its usual range. Added in quadrature, it gives a class of one flat color a
/// density.
Eigen::VectorXd smallest_spread(const Model& model);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_MODEL_H_
