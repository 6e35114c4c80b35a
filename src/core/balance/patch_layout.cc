#include "core/balance/patch_layout.h"

#include <algorithm>
#include <cmath>
#include <cstddef>
#include <utility>

#include "core/error.h"

namespace chalcedony {
namespace {

constexpr double kLeastSide = 1 - 1e-9;  // of a patch, in pixels

FourCorners corners_of(const PixelRect& box) {
  const double left = box.x, top = box.y, right = left + box.width, bottom = top + box.height;
  return {{{left, top}, {right, top}, {right, bottom}, {left, bottom}}};
}

/// Errors    InputError when they reach outside the picture
FourCorners corners_in(const std::variant<Region, FourCorners>& place, std::uint32_t width,
                       std::uint32_t height) {
  if (const auto* box = std::get_if<Region>(&place)) return corners_of(box->in(width, height));
  const FourCorners corners = std::get<FourCorners>(place);
  for (const PicturePoint& corner : corners)
    if (corner.x < 0 || corner.y < 0 || corner.x > width || corner.y > height)
      throw InputError("a corner lies outside the picture, which is " + std::to_string(width) +
                           "x" + std::to_string(height),
                       "give the corners of what the patches fill, in its pixels");
  return corners;
}

/// The outline of the patch in a cell.
std::vector<Position> patch_ring(const SquareMap& map, const PatchLayout& layout,
                                 std::size_t column, std::size_t row) {
  const double edge = (1 - layout.inner) / 2;
  const auto at = [&](double x, double y) {
    const PicturePoint point = map.at((static_cast<double>(column) + x) / layout.columns,
                                      (static_cast<double>(row) + y) / layout.rows);
    return Position{point.x, point.y};
  };
  return {at(edge, edge), at(1 - edge, edge), at(1 - edge, 1 - edge), at(edge, 1 - edge),
          at(edge, edge)};
}

double shortest_side(const std::vector<Position>& ring) {
  double shortest = 1e300;
  for (std::size_t i = 0; i + 1 < ring.size(); ++i)
    shortest = std::min(shortest, std::hypot(ring[i + 1].x - ring[i].x, ring[i + 1].y - ring[i].y));
  return shortest;
}

}  // namespace

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
  const std::size_t columns = layout.columns, cells = columns * layout.rows;
  if (names.size() != cells)
    throw InputError("has " + std::to_string(cells) + " patches, and " +
                         std::to_string(names.size()) + " colors are known",
                     "give a line for each patch, row by row from the top left");
  const SquareMap map(corners_in(layout.place, width, height));
  SampleSet patches;
  for (std::size_t cell = 0; cell < cells; ++cell) {
    SampleShape shape;
    shape.sample_class = patches.class_named(names[cell]);
    shape.rings = {patch_ring(map, layout, cell % columns, cell / columns)};
    if (shortest_side(shape.rings.front()) < kLeastSide)
      throw InputError("leaves less than a pixel of each patch across or down",
                       "give the rectangle that they fill");
    patches.shapes.push_back(std::move(shape));
  }
  return patches;
}

}  // namespace chalcedony
