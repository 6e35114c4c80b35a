// The classes of several pictures on one list.
#ifndef CHALCEDONY_JOB_HISTOGRAM_CLASS_LIST_H_
#define CHALCEDONY_JOB_HISTOGRAM_CLASS_LIST_H_

#include <cstddef>
#include <string>
#include <vector>

#include "job/histogram/class_source.h"

namespace chalcedony {

/// Classes of one name, case aside, are one class, in the color that it has first.
class ClassList {
 public:
  /// Adds what is not on the list yet. Returns where each of them stands.
  std::vector<std::size_t> add(const std::vector<CountedClass>& classes);

  const std::vector<CountedClass>& classes() const { return classes_; }

 private:
  std::vector<CountedClass> classes_;
  std::vector<std::string> names_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_CLASS_LIST_H_
