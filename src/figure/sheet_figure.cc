#include "figure/sheet_figure.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace chalcedony {
namespace {

// In pixels of the page: what stands below the cells, and above each of them its title.
constexpr double kFooter = 8;
constexpr double kTitleRoom = 48, kNarrowTitleRoom = 28;
constexpr double kPageMargin = 0.02 * Plot::kWidth, kGap = 0.01 * Plot::kWidth;
constexpr double kMostHeight = Plot::kHeight - Plot::kHeader - kFooter;

/// Where the cells of a page stand.
struct SheetGrid {
  std::size_t columns = 1, rows = 1;
  double room = kTitleRoom;  // for a title
  double cell_width = 0;     // with the gap to the next
  double picture_height = 0;

  double row_height() const { return room + picture_height; }
  /// What the page needs: the room below the last row is its margin.
  double page_height() const {
    return Plot::kHeader + static_cast<double>(rows) * row_height() + kFooter;
  }
};

SheetGrid grid_of(const std::vector<SheetCell>& cells, std::size_t columns) {
  const Thumbnail& picture = cells.front().picture;
  SheetGrid grid;
  grid.columns = columns;
  grid.rows = (cells.size() + columns - 1) / columns;
  grid.cell_width = (Plot::kWidth - 2 * kPageMargin) / static_cast<double>(columns);
  const double most = kMostHeight / static_cast<double>(grid.rows);
  if (grid.rows > 5) grid.room = std::min(kNarrowTitleRoom, 0.4 * most);
  const double scale =
      std::min((grid.cell_width - kGap) / picture.width, (most - grid.room) / picture.height);
  grid.picture_height = scale * picture.height;
  return grid;
}

/// With as many columns as make the pictures largest on a page.
SheetGrid best_grid(const std::vector<SheetCell>& cells) {
  SheetGrid best = grid_of(cells, 1);
  for (std::size_t columns = 2; columns <= cells.size(); ++columns) {
    const SheetGrid grid = grid_of(cells, columns);
    if (grid.picture_height > best.picture_height) best = grid;
  }
  return best;
}

/// Which cell stands at each place, row by row.
struct Arrangement {
  SheetGrid grid;
  std::vector<std::size_t> cells;
};

/// A table of so many columns, or the same with rows and columns exchanged where that makes its
/// pictures larger.
Arrangement table_of(const std::vector<SheetCell>& cells, std::size_t columns) {
  Arrangement table{grid_of(cells, columns), std::vector<std::size_t>(cells.size())};
  std::iota(table.cells.begin(), table.cells.end(), std::size_t{0});
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
      columns == 0 ? table_of(cells, best_grid(cells).columns) : table_of(cells, columns);
  const double page = grid.page_height();
  plot.begin(path, title, subtitle, std::round(page));
  for (std::size_t i = 0; i < cells.size(); ++i) {
    const double left = kPageMargin + grid.cell_width * static_cast<double>(i % grid.columns);
    const double top = Plot::kHeader + grid.row_height() * static_cast<double>(i / grid.columns);
    const SheetCell& cell = cells[order[i]];
    plot.show({(left + kGap / 2) / Plot::kWidth, (left + grid.cell_width - kGap / 2) / Plot::kWidth,
               1 - (top + grid.picture_height) / page, 1 - top / page},
              cell.title, cell.picture);
  }
}

}  // namespace chalcedony
