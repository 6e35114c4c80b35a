// How the process treats memory that was freed.
#ifndef CHALCEDONY_IO_PICTURE_FREED_MEMORY_H_
#define CHALCEDONY_IO_PICTURE_FREED_MEMORY_H_

#include <malloc.h>

namespace chalcedony {

/// Keeps freed buffers with the process, for a program to call at its start. Rows on their way out
/// are some hundred kilobytes a band; without this every one of them is given back to the system
/// and comes again page by page, each of which it fills with zeros first.
inline void keep_freed_memory() {
  constexpr int kLargestKept = 32 << 20, kMostKept = 256 << 20;
  ::mallopt(M_MMAP_THRESHOLD, kLargestKept);
  ::mallopt(M_TRIM_THRESHOLD, kMostKept);
}

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_FREED_MEMORY_H_
