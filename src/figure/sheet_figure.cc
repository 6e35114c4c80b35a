#include "figure/sheet_figure.h"

#include <algorithm>
#include <cmath>

namespace chalcedony {
namespace {

constexpr double kTitleRoom = 0.06, kNarrowTitleRoom = 0.035;

/// As many columns as make the pictures largest on a page of 16 to 10.
std::size_t best_columns(const std::vector<SheetCell>& cells) {
  const Thumbnail& picture = cells.front().picture;
  std::size_t columns = 1;
  double largest = 0;
  for (std::size_t c = 1; c <= cells.size(); ++c) {
    const double rows = std::ceil(static_cast<double>(cells.size()) / static_cast<double>(c));
    const double scale = std::min(0.96 * 1.6 / static_cast<double>(c) / picture.width,
                                  (0.86 / rows - kTitleRoom) / picture.height);
    if (scale <= largest) continue;
    largest = scale;
    columns = c;
  }
  return columns;
}

}  // namespace

void add_sheet(Plot& plot, const std::filesystem::path& path, const std::string& title,
               const std::string& subtitle, const std::vector<SheetCell>& cells,
               std::size_t columns) {
  plot.begin(path, title, subtitle);
  if (columns == 0) columns = best_columns(cells);
  const std::size_t rows = (cells.size() + columns - 1) / columns;
  const double width = 0.96 / static_cast<double>(columns),
               height = 0.86 / static_cast<double>(rows);
  const double room = rows > 5 ? std::min(kNarrowTitleRoom, 0.4 * height) : kTitleRoom;
  for (std::size_t i = 0; i < cells.size(); ++i) {
    const double left = 0.02 + width * static_cast<double>(i % columns);
    const double top = 0.87 - height * static_cast<double>(i / columns);
    plot.show({left + 0.005, left + width - 0.005, top - height + room, top}, cells[i].title,
              cells[i].picture);
  }
}

}  // namespace chalcedony
