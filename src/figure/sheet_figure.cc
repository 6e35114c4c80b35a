#include "figure/sheet_figure.h"

#include <cmath>

namespace chalcedony {
namespace {

SheetGrid grid_of(const std::vector<SheetCell>& cells, std::size_t columns) {
  return {cells, columns, Plot::kBodyWidth, Plot::kBodyHeight};
}

/// Which cell stands at each place, row by row.
struct Arrangement {
  SheetGrid grid;
  std::vector<std::size_t> cells;
};

/// A table of so many columns, or the same with rows and columns exchanged where that makes its
/// pictures larger.
Arrangement table_of(const std::vector<SheetCell>& cells, std::size_t columns) {
  Arrangement table{grid_of(cells, columns), row_by_row(cells.size())};
  const std::size_t rows = table.grid.rows();
  if (rows * columns != cells.size()) return table;
  const SheetGrid turned = grid_of(cells, rows);
  if (turned.picture_height() <= table.grid.picture_height()) return table;
  for (std::size_t i = 0; i < cells.size(); ++i) table.cells[i] = i % rows * columns + i / rows;
  table.grid = turned;
  return table;
}

}  // namespace

void add_sheet(Plot& plot, const std::filesystem::path& path, const std::string& title,
               const std::string& subtitle, const std::vector<SheetCell>& cells,
               std::size_t columns) {
  const auto [grid, order] =
      columns == 0 ? Arrangement{SheetGrid::best(cells, Plot::kBodyWidth, Plot::kBodyHeight),
                                 row_by_row(cells.size())}
                   : table_of(cells, columns);
  const Box body = plot.begin(path, title, subtitle, std::round(Plot::page_height(grid.height())));
  grid.show(plot, body, cells, order);
}

}  // namespace chalcedony
