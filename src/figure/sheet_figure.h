// A sheet of pictures of one size with titles.
#ifndef CHALCEDONY_FIGURE_SHEET_FIGURE_H_
#define CHALCEDONY_FIGURE_SHEET_FIGURE_H_

#include <cstddef>
#include <filesystem>
#include <string>
#include <vector>

#include "figure/plot/plot.h"
#include "figure/plot/sheet_grid.h"

namespace chalcedony {

/// All cells on a page, row by row, in as many columns as make them largest, or nearly so in fewer
/// rows; or, when `columns` is not 0, as a table with so many, whose rows and columns may be
/// exchanged to make them larger.
void add_sheet(Plot& plot, const std::filesystem::path& path, const std::string& title,
               const std::string& subtitle, const std::vector<SheetCell>& cells,
               std::size_t columns = 0);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_SHEET_FIGURE_H_
