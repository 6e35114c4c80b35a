#include "core/balance/patch_layout.h"

#include <cstddef>
#include <utility>

#include "core/error.h"

namespace chalcedony {

std::vector<std::string> cell_names(const PatchLayout& layout) {
  constexpr std::uint32_t kLetters = 26;
  std::vector<std::string> names;
  for (std::uint32_t row = 0; row < layout.rows; ++row) {
    std::string letters(1, static_cast<char>('A' + row % kLetters));
    if (row >= kLetters) letters.insert(0, 1, static_cast<char>('A' + row / kLetters - 1));
    for (std::uint32_t column = 0; column < layout.columns; ++column)
      names.push_back(letters + std::to_string(column + 1));
  }
  return names;
}

SampleSet patches_of_layout(const PatchLayout& layout, const std::vector<std::string>& names,
                            std::uint32_t width, std::uint32_t height) {
  const std::size_t cells = std::size_t{layout.columns} * layout.rows;
  if (names.size() != cells)
    throw InputError("has " + std::to_string(cells) + " patches, and " +
                         std::to_string(names.size()) + " colors are known",
                     "give a line for each patch, row by row from the top left");
  const PixelRect box = layout.box.in(width, height);
  const double across = static_cast<double>(box.width) / layout.columns;
  const double down = static_cast<double>(box.height) / layout.rows;
  if (across < 3 || down < 3)
    throw InputError("leaves patches less than 3 pixels wide or high",
                     "give the rectangle that they fill");
  SampleSet patches;
  for (std::size_t cell = 0; cell < cells; ++cell) {
    const double left = box.x + across * (static_cast<double>(cell % layout.columns) + 1.0 / 3);
    const double top = box.y + down * (static_cast<double>(cell / layout.columns) + 1.0 / 3);
    SampleShape shape;
    shape.sample_class = patches.class_named(names[cell]);
    shape.rings = {rectangle_ring(left, top, across / 3, down / 3)};
    patches.shapes.push_back(std::move(shape));
  }
  return patches;
}

}  // namespace chalcedony
