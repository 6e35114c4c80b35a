#include "figure/plot/heat_cells.h"

#include <fmt/format.h>

#include "figure/plot/text_color.h"

namespace chalcedony {
namespace {

constexpr double kLightHeat = 0.5;  // from here on the ramp has light colors

}  // namespace

void HeatCells::add(double x, double y, double share) {
  cells_ += fmt::format("{:g} {:g} {:.6g}\n", x, y, share);
}

void HeatCells::add_text(double x, double y, double share, const std::string& text) {
  (share < kLightHeat ? on_dark_ : on_light_).add(x, y, text);
}

std::string HeatCells::plot_of(Plot& plot, double half_height, const std::string& border) const {
  if (cells_.empty()) return "";
  return fmt::format(
      "plot {} using 1:2:(0.48):({}):3 with boxxyerror fs solid 1 {} lc palette notitle{}{}",
      plot.store(cells_), half_height, border, on_dark_.plot_of(plot, kLightText),
      on_light_.plot_of(plot, kDarkText));
}

}  // namespace chalcedony
