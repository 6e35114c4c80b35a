// Patches in even rows, as color targets have them.
#ifndef CHALCEDONY_CORE_BALANCE_PATCH_LAYOUT_H_
#define CHALCEDONY_CORE_BALANCE_PATCH_LAYOUT_H_

#include <cstdint>
#include <string>
#include <variant>
#include <vector>

#include "core/learn/sample_shape.h"
#include "core/pixel/region.h"
#include "core/reframe/four_corners.h"

namespace chalcedony {

struct PatchLayout {
  std::uint32_t columns = 1, rows = 1;
  // What the cells of the patches fill, edge to edge: upright, or seen at a slant.
  std::variant<Region, FourCorners> place;
  // How much of the side of a cell its patch is, about the middle: above 0, up to 1. A third is
  // clear of the edges of patches that fill their cells.
  double inner = 1.0 / 3;
};

/// What the cells are called by their places, row by row: A1, A2, ... of the first row, B1 of the
/// second; AA follows Z.
std::vector<std::string> cell_names(const PatchLayout& layout);

/// The inner part of each cell, row by row with these names, on a picture of this size.
///
/// Errors    InputError: another number of names than of cells, a place that reaches outside the
///           picture, patches of less than a pixel across or down
SampleSet patches_of_layout(const PatchLayout& layout, const std::vector<std::string>& names,
                            std::uint32_t width, std::uint32_t height);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_BALANCE_PATCH_LAYOUT_H_
