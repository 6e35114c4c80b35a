#include <hwy/highway.h>

#include <catch2/catch.hpp>
#include <cstdint>
#include <fstream>
#include <initializer_list>
#include <set>
#include <sstream>
#include <string>

namespace {

// What the system says of the first processor; nothing where it says so in another way.
[[maybe_unused]] std::set<std::string> flags_of_processor() {
  std::ifstream file("/proc/cpuinfo");
  for (std::string line; std::getline(file, line);) {
    std::istringstream words(line);
    std::string word;
    words >> word;
    if (word != "flags") continue;
    std::set<std::string> flags;
    while (words >> word) flags.insert(word);
    return flags;
  }
  return {};
}

}  // namespace

TEST_CASE("the instruction sets are those that the system says the processor has", "[core]") {
  const std::int64_t sets = hwy::SupportedTargets();
  CHECK((sets & HWY_STATIC_TARGET) != 0);
#if HWY_ARCH_X86
  const std::set<std::string> flags = flags_of_processor();
  if (flags.empty()) return;
  const auto has = [&](std::initializer_list<const char*> names) {
    for (const char* name : names)
      if (flags.count(name) == 0) return false;
    return true;
  };
  const bool avx2 = has({"avx2", "bmi1", "bmi2", "fma", "f16c", "aes", "pclmulqdq"});
  const bool avx3 = avx2 && has({"avx512f", "avx512vl", "avx512dq", "avx512bw"});
  CHECK(((sets & HWY_AVX2) != 0) == (avx2 || (HWY_STATIC_TARGET & HWY_AVX2) != 0));
  CHECK(((sets & HWY_AVX3) != 0) == (avx3 || (HWY_STATIC_TARGET & HWY_AVX3) != 0));
#endif
}

TEST_CASE("a test can leave out instruction sets, not add any", "[core]") {
  const std::int64_t sets = hwy::SupportedTargets();
  hwy::SetSupportedTargetsForTest(HWY_STATIC_TARGET);
  CHECK(hwy::SupportedTargets() == HWY_STATIC_TARGET);
  hwy::SetSupportedTargetsForTest(~std::int64_t{0});
  CHECK(hwy::SupportedTargets() == sets);
  hwy::SetSupportedTargetsForTest(0);
  CHECK(hwy::SupportedTargets() == sets);
}
