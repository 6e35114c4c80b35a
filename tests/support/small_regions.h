// A mask and a class map so small that their regions can be counted by eye.
#ifndef CHALCEDONY_TESTS_SUPPORT_SMALL_REGIONS_H_
#define CHALCEDONY_TESTS_SUPPORT_SMALL_REGIONS_H_

#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

#include "tests/support/pictures.h"

namespace chalcedony::test {

/// 6 x 4: a 3 x 3 square with a hole, and a speck.
inline void write_holed_mask(const std::filesystem::path& path) {
  std::vector<std::uint8_t> mask;
  for (const char c : std::string("ooo...o.o...ooo..o......")) mask.push_back(c == 'o' ? 255 : 0);
  write_labels(path, 6, mask);
}

/// 4 x 2: class 1 "left", class 2 "right".
inline void write_left_right_map(const std::filesystem::path& path) {
  write_labels(path, 4, {1, 1, 2, 2, 1, 1, 1, 2},
               {{1, "left", "#c00000"}, {2, "right", "#0000c0"}});
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_SMALL_REGIONS_H_
