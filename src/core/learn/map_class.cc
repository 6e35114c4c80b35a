#include "core/learn/map_class.h"

#include <algorithm>

namespace chalcedony {
namespace {

std::size_t place_of(const std::string& name, const std::vector<MapClass>& classes) {
  const auto at = std::find_if(classes.begin(), classes.end(),
                               [&](const MapClass& one) { return one.name == name; });
  return static_cast<std::size_t>(at - classes.begin());
}

}  // namespace

std::vector<MapClass> map_classes(const std::vector<MapClass>& entries) {
  std::vector<MapClass> classes;
  for (const MapClass& entry : entries)
    if (place_of(entry.name, classes) == classes.size()) classes.push_back(entry);
  return classes;
}

std::vector<Label> class_numbers(const std::vector<MapClass>& entries) {
  const std::vector<MapClass> classes = map_classes(entries);
  std::vector<Label> numbers;
  for (const MapClass& entry : entries)
    numbers.push_back(static_cast<Label>(place_of(entry.name, classes) + 1));
  return numbers;
}

}  // namespace chalcedony
