// A picture of labels held whole, for work in which far pixels decide.
#ifndef CHALCEDONY_CORE_REGION_LABEL_GRID_H_
#define CHALCEDONY_CORE_REGION_LABEL_GRID_H_

#include <cstddef>
#include <cstdint>
#include <vector>

namespace chalcedony {

/// A byte a pixel, rows from the top; 0 is no class. A mask has class 1 only.
struct LabelGrid {
  std::uint32_t width = 0;
  std::uint32_t height = 0;
  std::vector<std::uint8_t> labels;

  LabelGrid() = default;
  LabelGrid(std::uint32_t w, std::uint32_t h) : width(w), height(h), labels(std::size_t{w} * h) {}

  std::uint8_t* row(std::size_t y) { return labels.data() + y * width; }
  const std::uint8_t* row(std::size_t y) const { return labels.data() + y * width; }
};

/// The labels that occur, in order, 0 aside.
inline std::vector<std::uint8_t> labels_in(const LabelGrid& grid) {
  std::vector<bool> seen(256);
  for (const std::uint8_t label : grid.labels) seen[label] = true;
  std::vector<std::uint8_t> labels;
  for (std::size_t label = 1; label < 256; ++label)
    if (seen[label]) labels.push_back(static_cast<std::uint8_t>(label));
  return labels;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REGION_LABEL_GRID_H_
