#include "job/histogram/class_list.h"

#include "core/assess/class_matching.h"

namespace chalcedony {

std::vector<std::size_t> ClassList::add(const std::vector<CountedClass>& classes) {
  std::vector<std::size_t> places;
  for (const CountedClass& one : classes) {
    places.push_back(place_in_list(names_, one.name));
    if (names_.size() > classes_.size()) classes_.push_back(one);
  }
  return places;
}

}  // namespace chalcedony
