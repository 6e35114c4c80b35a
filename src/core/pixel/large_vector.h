// Vectors of millions of numbers, made once and filled by several threads.
#ifndef CHALCEDONY_CORE_PIXEL_LARGE_VECTOR_H_
#define CHALCEDONY_CORE_PIXEL_LARGE_VECTOR_H_

#include <sys/mman.h>

#include <cstddef>
#include <memory>
#include <new>
#include <vector>

#include "core/pixel/unset_vector.h"

namespace chalcedony {

/// Asks the system for large pages where they fit: it makes one of those sooner than the many small
/// ones it stands for. Not for what is made again and again, for which such room is hard to find.
template <class Number>
struct LargePages : LeaveUnset<Number> {
  template <class Other>
  struct rebind {
    using other = LargePages<Other>;
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

 private:
  static constexpr std::align_val_t kLargePage{std::size_t{2} << 20};

  static bool large(std::size_t n) {
    return n >= static_cast<std::size_t>(kLargePage) / sizeof(Number);
  }
};

/// New numbers are not set to 0.
template <class Number>
using LargeVector = std::vector<Number, LargePages<Number>>;

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_LARGE_VECTOR_H_
