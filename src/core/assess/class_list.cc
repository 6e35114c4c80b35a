#include "core/assess/class_list.h"

#include "core/assess/class_matching.h"

namespace chalcedony {

std::size_t ClassList::add(const std::string& name, const std::string& color) {
  const std::size_t place = place_in_list(names_, name);
  if (place == colors_.size()) colors_.push_back(color);
  return place;
}

}  // namespace chalcedony
