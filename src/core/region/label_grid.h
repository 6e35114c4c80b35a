// A picture of labels held whole, for work in which far pixels decide.
#ifndef CHALCEDONY_CORE_REGION_LABEL_GRID_H_
#define CHALCEDONY_CORE_REGION_LABEL_GRID_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/pixel/label.h"
#include "core/pixel/seen_labels.h"

namespace chalcedony {

/// A label a pixel, rows from the top. A mask has class 1 only.
struct LabelGrid {
  std::uint32_t width = 0;
  std::uint32_t height = 0;
  std::vector<Label> labels;

  LabelGrid() = default;
  LabelGrid(std::uint32_t w, std::uint32_t h) : width(w), height(h), labels(std::size_t{w} * h) {}

  Label* row(std::size_t y) { return labels.data() + y * width; }
  const Label* row(std::size_t y) const { return labels.data() + y * width; }
};

/// The labels that occur, in order, 0 aside.
inline std::vector<Label> labels_in(const LabelGrid& grid) {
  SeenLabels seen;
  seen.add(grid.labels.data(), grid.labels.size());
  return seen.labels();
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REGION_LABEL_GRID_H_
