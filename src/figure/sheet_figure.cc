#include "figure/sheet_figure.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <tuple>

#include "figure/plot/fitted_text.h"

namespace chalcedony {
namespace {

// Of the page, in pixels: between cells, and above a picture its title with the gap before it.
constexpr double kSheetGap = 13;
constexpr double kTitleRoom = 44, kNarrowTitleRoom = 28;
constexpr double kNearlyLargest = 0.95;  // of the largest pictures
constexpr double kMostHeight = Plot::kHeight - Plot::page_height(0);

/// Where the cells of a page stand.
struct SheetGrid {
  std::size_t columns = 1, rows = 1;
  double room = kTitleRoom;  // for a title
  double picture_height = 0;

  double row_height() const { return room + picture_height; }
  /// There is no gap above the first row.
  double height() const {
    return static_cast<double>(rows) * row_height() - (room - Plot::kPanelTitle);
  }
};

SheetGrid grid_of(const std::vector<SheetCell>& cells, std::size_t columns) {
  const Thumbnail& picture = cells.front().picture;
  SheetGrid grid;
  grid.columns = columns;
  grid.rows = (cells.size() + columns - 1) / columns;
  const double wide = (Plot::kBodyWidth + kSheetGap) / static_cast<double>(columns) - kSheetGap;
  const auto rows = static_cast<double>(grid.rows);
  if (rows > 5) grid.room = std::min(kNarrowTitleRoom, 0.4 * kMostHeight / rows);
  const double high = (kMostHeight - Plot::kPanelTitle + grid.room) / rows - grid.room;
  const double scale = std::min(wide / picture.width, high / picture.height);
  grid.picture_height = scale * picture.height;
  return grid;
}

/// As wide as the columns need be: where the pictures or their titles are narrower than these could
/// be, they stand side by side all the same.
Box drawn_together(Box body, const std::vector<SheetCell>& cells, const SheetGrid& grid) {
  const Thumbnail& picture = cells.front().picture;
  double widest = grid.picture_height / picture.height * picture.width;
  for (const SheetCell& cell : cells)
    widest = std::max(widest, text_width(cell.title, Plot::kPanelTitlePoints));
  const double needed = (widest + kSheetGap) * static_cast<double>(grid.columns) - kSheetGap;
  body.right = std::min(body.right, body.left + needed);
  return body;
}

/// The fewest rows, and in them the fewest places, that make the pictures as large as can be, or
/// nearly so.
SheetGrid best_grid(const std::vector<SheetCell>& cells) {
  std::vector<SheetGrid> grids;
  for (std::size_t columns = 1; columns <= cells.size(); ++columns)
    grids.push_back(grid_of(cells, columns));
  double largest = 0;
  for (const SheetGrid& grid : grids) largest = std::max(largest, grid.picture_height);
  const auto rank = [&](const SheetGrid& grid) {
    return std::tuple(grid.picture_height < kNearlyLargest * largest, grid.rows, grid.columns);
  };
  return *std::min_element(
      grids.begin(), grids.end(),
      [&](const SheetGrid& one, const SheetGrid& other) { return rank(one) < rank(other); });
}

/// Which cell stands at each place, row by row.
struct Arrangement {
  SheetGrid grid;
  std::vector<std::size_t> cells;
};

Arrangement row_by_row(const SheetGrid& grid, std::size_t cells) {
  Arrangement all{grid, std::vector<std::size_t>(cells)};
  std::iota(all.cells.begin(), all.cells.end(), std::size_t{0});
  return all;
}

/// A table of so many columns, or the same with rows and columns exchanged where that makes its
/// pictures larger.
Arrangement table_of(const std::vector<SheetCell>& cells, std::size_t columns) {
  Arrangement table = row_by_row(grid_of(cells, columns), cells.size());
  const std::size_t rows = table.grid.rows;
  if (rows * columns != cells.size()) return table;
  const SheetGrid turned = grid_of(cells, rows);
  if (turned.picture_height <= table.grid.picture_height) return table;
  for (std::size_t i = 0; i < cells.size(); ++i) table.cells[i] = i % rows * columns + i / rows;
  table.grid = turned;
  return table;
}

}  // namespace

void add_sheet(Plot& plot, const std::filesystem::path& path, const std::string& title,
               const std::string& subtitle, const std::vector<SheetCell>& cells,
               std::size_t columns) {
  const auto [grid, order] =
      columns == 0 ? row_by_row(best_grid(cells), cells.size()) : table_of(cells, columns);
  const Box body = plot.begin(path, title, subtitle, std::round(Plot::page_height(grid.height())));
  const auto columns_of_page =
      columns_of(drawn_together(body, cells, grid), grid.columns, kSheetGap);
  for (std::size_t i = 0; i < cells.size(); ++i) {
    Box cell = columns_of_page[i % grid.columns];
    cell.top += grid.row_height() * static_cast<double>(i / grid.columns);
    cell.bottom = cell.top + Plot::kPanelTitle + grid.picture_height;
    plot.show(cell, cells[order[i]].title, cells[order[i]].picture);
  }
}

}  // namespace chalcedony
