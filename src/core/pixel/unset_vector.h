// Vectors whose new numbers are not set to 0.
#ifndef CHALCEDONY_CORE_PIXEL_UNSET_VECTOR_H_
#define CHALCEDONY_CORE_PIXEL_UNSET_VECTOR_H_

#include <sys/mman.h>

#include <cstddef>
#include <memory>
#include <new>
#include <utility>
#include <vector>

namespace chalcedony {

/// Leaves numbers that are given no value as the memory has them, and asks the system for large
/// pages where they fit: it makes one of those sooner than the many small ones it stands for.
template <class Number>
struct LeaveUnset : std::allocator<Number> {
  template <class Other>
  struct rebind {
    using other = LeaveUnset<Other>;
  };

  Number* allocate(std::size_t n) {
    if (!large(n)) return std::allocator<Number>::allocate(n);
    void* const memory = ::operator new(n * sizeof(Number), kLargePage);
    ::madvise(memory, n * sizeof(Number), MADV_HUGEPAGE);
    return static_cast<Number*>(memory);
  }
  void deallocate(Number* numbers, std::size_t n) {
    if (!large(n)) return std::allocator<Number>::deallocate(numbers, n);
    ::operator delete(numbers, kLargePage);
  }

  template <class Other>
  void construct(Other* at) {
    ::new (static_cast<void*>(at)) Other;
  }
  template <class Other, class... Values>
  void construct(Other* at, Values&&... values) {
    ::new (static_cast<void*>(at)) Other(std::forward<Values>(values)...);
  }

 private:
  static constexpr std::align_val_t kLargePage{std::size_t{2} << 20};

  static bool large(std::size_t n) {
    return n >= static_cast<std::size_t>(kLargePage) / sizeof(Number);
  }
};

/// A vector for several threads to fill: who writes a part first has the system make its pages, so
/// that no thread waits while one makes all of them.
template <class Number>
using UnsetVector = std::vector<Number, LeaveUnset<Number>>;

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_UNSET_VECTOR_H_
