// Small class maps of two glasses, to be assessed.
#ifndef CHALCEDONY_TESTS_SUPPORT_GLASS_MAPS_H_
#define CHALCEDONY_TESTS_SUPPORT_GLASS_MAPS_H_

#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

#include "tests/support/pictures.h"
#include "tests/support/temp_dir.h"

namespace chalcedony::test {

inline const std::vector<LegendEntry> kGlass{{1, "ruby", "#a01c2e"}, {2, "lead", "#3c3d40"}};

/// A class map of the glasses.
inline void write_glass(const std::filesystem::path& path, std::uint32_t width,
                        const std::vector<std::uint8_t>& labels,
                        const std::vector<LegendEntry>& legend = kGlass) {
  write_labels(path, width, labels, legend);
}

/// Map and reference whose matrix is 3 1 / 1 2 / unclassified 1 1; one pixel has no label.
inline const std::vector<std::uint8_t> kTinyMap{1, 1, 1, 1, 2, 2, 2, 0, 0, 1};
inline const std::vector<std::uint8_t> kTinyTruth{1, 1, 1, 2, 1, 2, 2, 1, 2, 0};

inline void write_tiny(const TempDir& dir) {
  write_glass(dir / "t.classes.png", 5, kTinyMap);
  write_glass(dir / "truth.png", 5, kTinyTruth);
}

inline const std::vector<std::string> kTiny{"assess", "t.classes.png", "--reference", "truth.png"};

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_GLASS_MAPS_H_
