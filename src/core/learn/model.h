// A trained classifier: what it looks at and what it knows of each class.
#ifndef CHALCEDONY_CORE_LEARN_MODEL_H_
#define CHALCEDONY_CORE_LEARN_MODEL_H_

#include <string>
#include <vector>

#include "core/color/channel.h"
#include "core/learn/class_statistics.h"

namespace chalcedony {

struct ModelClass {
  std::string name;
  std::string color;  // CSS hexadecimal
  ClassStatistics statistics;
};

struct Model {
  std::string method;             // "minimum-distance"
  std::vector<Channel> features;  // in the contract's units
  std::vector<ModelClass> classes;
  std::vector<std::string> trained_on;  // names of the pictures, for the record
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_MODEL_H_
