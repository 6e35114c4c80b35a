// Which instruction sets the processor has, for <hwy/targets.h>, and what the checks of
// <hwy/base.h> end in: their functions are defined here. Highway's own library does more than that:
// while it is loaded it measures the clock for several milliseconds, longer than all else that a
// short command does. So only its headers are used.
#include <hwy/highway.h>

#include <cstdarg>
#include <cstdint>
#include <cstdio>
#include <cstdlib>

namespace hwy {
namespace {

std::int64_t allowed_by_test = 0;

// What HWY_TARGET_STR names for each set. Processors with AVX2 have F16C, for which Clang 14 has no
// name here.
std::int64_t sets_of_processor() {
  std::int64_t sets = HWY_STATIC_TARGET;
#if HWY_ARCH_X86
  const bool avx2 = __builtin_cpu_supports("avx2") && __builtin_cpu_supports("bmi") &&
                    __builtin_cpu_supports("bmi2") && __builtin_cpu_supports("fma") &&
                    __builtin_cpu_supports("aes") && __builtin_cpu_supports("pclmul");
  const bool avx3 = avx2 && __builtin_cpu_supports("avx512f") &&
                    __builtin_cpu_supports("avx512vl") && __builtin_cpu_supports("avx512dq") &&
                    __builtin_cpu_supports("avx512bw");
  if (avx2) sets |= HWY_AVX2;
  if (avx3) sets |= HWY_AVX3;
#endif
  return sets;
}

}  // namespace

std::int64_t SupportedTargets() {
  static const std::int64_t sets = sets_of_processor();
  return allowed_by_test != 0 ? sets & allowed_by_test : sets;
}

void SetSupportedTargetsForTest(std::int64_t targets) { allowed_by_test = targets; }

/// Only builds with checks come here, and only by a mistake in a kernel.
void Abort(const char* file, int line, const char* format, ...) {
  std::fprintf(stderr, "%s:%d: ", file, line);
  std::va_list values;
  va_start(values, format);
  std::vfprintf(stderr, format, values);
  va_end(values);
  std::fputc('\n', stderr);
  std::abort();
}

ChosenTarget& GetChosenTarget() {
  static ChosenTarget chosen;
  return chosen;
}

}  // namespace hwy
