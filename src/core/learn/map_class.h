// A class as maps show it.
#ifndef CHALCEDONY_CORE_LEARN_MAP_CLASS_H_
#define CHALCEDONY_CORE_LEARN_MAP_CLASS_H_

#include <string>
#include <vector>

#include "core/pixel/label.h"

namespace chalcedony {

struct MapClass {
  std::string name;
  std::string color;  // CSS hexadecimal
};

/// The classes that entries make, class 1 first: those that bear one name are one class, in the
/// color of the first.
std::vector<MapClass> map_classes(const std::vector<MapClass>& entries);

/// For each entry the number of its class, 1 for the first.
std::vector<Label> class_numbers(const std::vector<MapClass>& entries);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_MAP_CLASS_H_
