// The classes of several maps or pictures on one list.
#ifndef CHALCEDONY_CORE_ASSESS_CLASS_LIST_H_
#define CHALCEDONY_CORE_ASSESS_CLASS_LIST_H_

#include <cstddef>
#include <string>
#include <vector>

namespace chalcedony {

/// Classes of one name, case aside, are one class, in the color that it has first.
class ClassList {
 public:
  /// Where the class of this name stands; one that is not there is added.
  std::size_t add(const std::string& name, const std::string& color);

  std::size_t size() const { return names_.size(); }
  const std::vector<std::string>& names() const { return names_; }
  const std::vector<std::string>& colors() const { return colors_; }

 private:
  std::vector<std::string> names_, colors_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_CLASS_LIST_H_
