// Pictures with titles, row by row in a box of the page.
#ifndef CHALCEDONY_FIGURE_PLOT_SHEET_GRID_H_
#define CHALCEDONY_FIGURE_PLOT_SHEET_GRID_H_

#include <cstddef>
#include <string>
#include <vector>

#include "core/pixel/thumbnail.h"
#include "figure/plot/plot.h"

namespace chalcedony {

struct SheetCell {
  std::string title;
  Thumbnail picture;
  Overlay over = {};
  // A name that follows in the title, cut where there is no room for it, and what stands behind it.
  std::string name = {}, behind = {};
};

/// How cells stand in a box. All have room for the first one's picture.
class SheetGrid {
 public:
  /// In so many columns of a box so wide and high.
  SheetGrid(const std::vector<SheetCell>& cells, std::size_t columns, double wide, double high);

  /// The fewest rows, and in them the fewest places, that make the pictures as large as can be, or
  /// nearly so.
  static SheetGrid best(const std::vector<SheetCell>& cells, double wide, double high);

  std::size_t rows() const { return rows_; }
  double picture_height() const { return picture_height_; }
  /// What a title may take.
  double cell_width() const { return cell_width_; }
  /// Of all rows.
  double height() const;

  /// Shows cell `order[i]` at place i, row by row from the top of the box.
  void show(Plot& plot, Box box, const std::vector<SheetCell>& cells,
            const std::vector<std::size_t>& order) const;

 private:
  double row_height() const { return room_ + picture_height_; }
  Box drawn_together(Box box, const std::vector<std::string>& titles,
                     const Thumbnail& picture) const;

  std::size_t columns_, rows_;
  double room_;  // for a title
  double cell_width_, picture_height_;
};

/// The places of so many cells, row by row.
std::vector<std::size_t> row_by_row(std::size_t cells);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_SHEET_GRID_H_
