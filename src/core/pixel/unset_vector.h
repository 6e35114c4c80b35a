// Vectors whose new numbers are not set to 0.
#ifndef CHALCEDONY_CORE_PIXEL_UNSET_VECTOR_H_
#define CHALCEDONY_CORE_PIXEL_UNSET_VECTOR_H_

#include <memory>
#include <utility>
#include <vector>

namespace chalcedony {

/// Leaves numbers that are given no value as the memory has them.
template <class Number>
struct LeaveUnset : std::allocator<Number> {
  template <class Other>
  struct rebind {
    using other = LeaveUnset<Other>;
  };

  template <class Other>
  void construct(Other* at) {
    ::new (static_cast<void*>(at)) Other;
  }
  template <class Other, class... Values>
  void construct(Other* at, Values&&... values) {
    ::new (static_cast<void*>(at)) Other(std::forward<Values>(values)...);
  }
};

/// A vector for several threads to fill: who writes a part first has the system make its pages, so
/// that no thread waits while one makes all of them.
template <class Number>
using UnsetVector = std::vector<Number, LeaveUnset<Number>>;

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_UNSET_VECTOR_H_
