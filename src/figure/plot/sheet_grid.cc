#include "figure/plot/sheet_grid.h"

#include <algorithm>
#include <numeric>
#include <tuple>

#include "figure/plot/fitted_text.h"

namespace chalcedony {
namespace {

// Of the page, in pixels: between cells, and above a picture its title with the gap before it.
constexpr double kSheetGap = 13;
constexpr double kTitleRoom = 44, kNarrowTitleRoom = 28;
constexpr double kNearlyLargest = 0.88;  // of the largest pictures

/// Titles in so many pixels each.
std::vector<std::string> titles_of(const std::vector<SheetCell>& cells, double width) {
  std::vector<std::string> names;
  double around = 0;  // the widest of what stands around names
  for (const SheetCell& cell : cells) {
    names.push_back(cell.name);
    if (!cell.name.empty())
      around = std::max(around, text_width(cell.title + cell.behind, Plot::kPanelTitlePoints));
  }
  names = fitted_names(names, width - around, Plot::kPanelTitlePoints);
  for (std::size_t i = 0; i < cells.size(); ++i)
    names[i] = cells[i].title + names[i] + cells[i].behind;
  return names;
}

}  // namespace

SheetGrid::SheetGrid(const std::vector<SheetCell>& cells, std::size_t columns, double wide,
                     double high)
    : columns_(columns),
      rows_((cells.size() + columns - 1) / columns),
      room_(kTitleRoom),
      cell_width_((wide + kSheetGap) / static_cast<double>(columns_) - kSheetGap) {
  const Thumbnail& picture = cells.front().picture;
  const auto rows = static_cast<double>(rows_);
  if (rows > 5) room_ = std::min(kNarrowTitleRoom, 0.4 * high / rows);
  // There is no gap above the first row.
  const double cell_high = (high - Plot::kPanelTitle + room_) / rows - room_;
  const double scale = std::min(cell_width_ / picture.width, cell_high / picture.height);
  picture_height_ = scale * picture.height;
}

SheetGrid SheetGrid::best(const std::vector<SheetCell>& cells, double wide, double high) {
  std::vector<SheetGrid> grids;
  for (std::size_t columns = 1; columns <= cells.size(); ++columns)
    grids.emplace_back(cells, columns, wide, high);
  double largest = 0;
  for (const SheetGrid& grid : grids) largest = std::max(largest, grid.picture_height_);
  const auto rank = [&](const SheetGrid& grid) {
    return std::tuple(grid.picture_height_ < kNearlyLargest * largest, grid.rows_, grid.columns_);
  };
  return *std::min_element(
      grids.begin(), grids.end(),
      [&](const SheetGrid& one, const SheetGrid& other) { return rank(one) < rank(other); });
}

double SheetGrid::height() const {
  return static_cast<double>(rows_) * row_height() - (room_ - Plot::kPanelTitle);
}

/// As wide as the columns need be: where the pictures or their titles are narrower than these could
/// be, they stand side by side all the same.
Box SheetGrid::drawn_together(Box box, const std::vector<std::string>& titles,
                              const Thumbnail& picture) const {
  const double widest = std::max(picture_height_ / picture.height * picture.width,
                                 widest_text(titles, Plot::kPanelTitlePoints));
  const double needed = (widest + kSheetGap) * static_cast<double>(columns_) - kSheetGap;
  box.right = std::min(box.right, box.left + needed);
  return box;
}

void SheetGrid::show(Plot& plot, Box box, const std::vector<SheetCell>& cells,
                     const std::vector<std::size_t>& order) const {
  const std::vector<std::string> titles = titles_of(cells, cell_width_);
  const auto columns =
      columns_of(drawn_together(box, titles, cells.front().picture), columns_, kSheetGap);
  for (std::size_t i = 0; i < cells.size(); ++i) {
    Box cell = columns[i % columns_];
    cell.top += row_height() * static_cast<double>(i / columns_);
    cell.bottom = cell.top + Plot::kPanelTitle + picture_height_;
    const SheetCell& shown = cells[order[i]];
    plot.show(cell, titles[order[i]], shown.picture, shown.over);
  }
}

std::vector<std::size_t> row_by_row(std::size_t cells) {
  std::vector<std::size_t> order(cells);
  std::iota(order.begin(), order.end(), std::size_t{0});
  return order;
}

}  // namespace chalcedony
