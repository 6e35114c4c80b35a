// Makes a plain `Kernel` of a function compiled once for each instruction set; the best one the
// machine has is picked at the first call.
#ifndef CHALCEDONY_CORE_COLOR_KERNEL_EXPORT_H_
#define CHALCEDONY_CORE_COLOR_KERNEL_EXPORT_H_

#include <hwy/highway.h>

#include <cstddef>

#include "core/planes.h"

#define CHALCEDONY_KERNEL(function, kernel)                              \
  HWY_EXPORT(function);                                                  \
  void kernel(const ConstPlanes& in, const Planes& out, std::size_t n) { \
    HWY_DYNAMIC_DISPATCH(function)(in, out, n);                          \
  }                                                                      \
  static_assert(true, "ends with a semicolon")

#endif  // CHALCEDONY_CORE_COLOR_KERNEL_EXPORT_H_
