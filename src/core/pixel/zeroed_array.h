// A large array of zeros of which mostly parts are used.
#ifndef CHALCEDONY_CORE_PIXEL_ZEROED_ARRAY_H_
#define CHALCEDONY_CORE_PIXEL_ZEROED_ARRAY_H_

#include <sys/mman.h>

#include <algorithm>
#include <cstddef>
#include <memory>
#include <new>
#include <stop_token>

namespace chalcedony {

/// n numbers, all 0. The system makes a page of zeros only when it is touched, and large pages
/// where it can, which spares most of the time of finding them.
template <class Number>
class ZeroedArray {
 public:
  /// Errors    std::bad_alloc
  explicit ZeroedArray(std::size_t n) : numbers_(mapped(n), Release{n * sizeof(Number)}) {}

  /// Has the system make the pages now, all of them or until told to stop; what they hold stays.
  /// May be called by one thread while others work on the numbers, so that those need not wait for
  /// pages.
  void make_pages([[maybe_unused]] const std::stop_token& stop) {
#ifdef MADV_POPULATE_WRITE
    // A little at a time: the process can be given no other memory meanwhile.
    constexpr std::size_t kStep = std::size_t{1} << 21;
    auto* const first = reinterpret_cast<char*>(numbers_.get());
    const std::size_t bytes = numbers_.get_deleter().bytes;
    for (std::size_t at = 0; at < bytes && !stop.stop_requested(); at += kStep)
      ::madvise(first + at, std::min(kStep, bytes - at), MADV_POPULATE_WRITE);
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
