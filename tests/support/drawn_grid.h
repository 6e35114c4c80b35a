// Label grids drawn as text, and random ones.
#ifndef CHALCEDONY_TESTS_SUPPORT_DRAWN_GRID_H_
#define CHALCEDONY_TESTS_SUPPORT_DRAWN_GRID_H_

#include <random>
#include <string>
#include <vector>

#include "core/region/label_grid.h"

namespace chalcedony::test {

/// Rows of digits; anything else is 0.
inline LabelGrid drawn(const std::vector<std::string>& rows) {
  LabelGrid grid(static_cast<std::uint32_t>(rows[0].size()),
                 static_cast<std::uint32_t>(rows.size()));
  for (std::size_t y = 0; y < rows.size(); ++y)
    for (std::size_t x = 0; x < rows[y].size(); ++x)
      if (rows[y][x] >= '0' && rows[y][x] <= '9')
        grid.row(y)[x] = static_cast<std::uint8_t>(rows[y][x] - '0');
  return grid;
}

inline std::vector<std::string> drawing_of(const LabelGrid& grid) {
  std::vector<std::string> rows;
  for (std::size_t y = 0; y < grid.height; ++y) {
    std::string& row = rows.emplace_back();
    for (std::size_t x = 0; x < grid.width; ++x)
      row += grid.row(y)[x] ? static_cast<char>('0' + grid.row(y)[x]) : '.';
  }
  return rows;
}

/// Labels 0 to `classes`, 0 with the chance `empty`.
inline LabelGrid random_grid(std::uint32_t width, std::uint32_t height, unsigned seed,
                             unsigned classes = 1, double empty = 0.5) {
  std::mt19937 random(seed);
  LabelGrid grid(width, height);
  for (auto& label : grid.labels)
    label = random() < empty * 4294967296.0 ? 0 : static_cast<std::uint8_t>(1 + random() % classes);
  return grid;
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_DRAWN_GRID_H_
