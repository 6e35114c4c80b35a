// A large array of zeros of which mostly parts are used.
#ifndef CHALCEDONY_CORE_PIXEL_ZEROED_ARRAY_H_
#define CHALCEDONY_CORE_PIXEL_ZEROED_ARRAY_H_

#include <sys/mman.h>

#include <cstddef>
#include <memory>
#include <new>

namespace chalcedony {

/// n numbers, all 0. The system makes a page of zeros only when it is touched, and large pages
/// where it can, which spares most of the time of finding them.
template <class Number>
class ZeroedArray {
 public:
  /// Errors    std::bad_alloc
  explicit ZeroedArray(std::size_t n) : numbers_(mapped(n), Release{n * sizeof(Number)}) {}

  /// Has the system make the pages of `count` numbers from `first` on now, where a page begins;
  /// what they hold stays. May be called by one thread while others work on the numbers, so that
  /// those need not wait for pages. The process can be given no other memory meanwhile.
  void make_pages([[maybe_unused]] std::size_t first, [[maybe_unused]] std::size_t count) {
#ifdef MADV_POPULATE_WRITE
    ::madvise(numbers_.get() + first, count * sizeof(Number), MADV_POPULATE_WRITE);
#endif
  }

  Number* data() { return numbers_.get(); }
  const Number* data() const { return numbers_.get(); }
  Number& operator[](std::size_t i) { return numbers_[i]; }
  Number operator[](std::size_t i) const { return numbers_[i]; }

 private:
  struct Release {
    std::size_t bytes;
    void operator()(Number* numbers) const { ::munmap(numbers, bytes); }
  };

  static Number* mapped(std::size_t n) {
    void* const memory = ::mmap(nullptr, n * sizeof(Number), PROT_READ | PROT_WRITE,
                                MAP_PRIVATE | MAP_ANONYMOUS, -1, 0);
    if (memory == MAP_FAILED) throw std::bad_alloc();
    ::madvise(memory, n * sizeof(Number), MADV_HUGEPAGE);
    return static_cast<Number*>(memory);
  }

  std::unique_ptr<Number[], Release> numbers_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_ZEROED_ARRAY_H_
