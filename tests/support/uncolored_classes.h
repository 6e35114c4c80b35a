// Classes by selections, as they are written.
#ifndef CHALCEDONY_TESTS_SUPPORT_UNCOLORED_CLASSES_H_
#define CHALCEDONY_TESTS_SUPPORT_UNCOLORED_CLASSES_H_

#include <string>
#include <utility>
#include <vector>

#include "core/select/selected_classes.h"

namespace chalcedony::test {

/// Classes of these names and selections, without colors.
inline std::vector<SelectedClass> uncolored(
    const std::vector<std::pair<std::string, std::string>>& named) {
  std::vector<SelectedClass> classes;
  for (const auto& [name, where] : named) classes.push_back({name, "", parse_expression(where)});
  return classes;
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_UNCOLORED_CLASSES_H_
