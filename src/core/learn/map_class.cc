#include "core/learn/map_class.h"

#include <cstddef>
#include <map>
#include <string_view>

namespace chalcedony {

std::vector<MapClass> map_classes(const std::vector<MapClass>& entries) {
  const std::vector<Label> numbers = class_numbers(entries);
  std::vector<MapClass> classes;
  for (std::size_t i = 0; i < entries.size(); ++i)
    if (numbers[i] > classes.size()) classes.push_back(entries[i]);
  return classes;
}

std::vector<Label> class_numbers(const std::vector<MapClass>& entries) {
  std::map<std::string_view, Label> number_of;
  std::vector<Label> numbers;
  for (const MapClass& entry : entries) {
    const auto next = static_cast<Label>(number_of.size() + 1);
    numbers.push_back(number_of.emplace(entry.name, next).first->second);
  }
  return numbers;
}

}  // namespace chalcedony
