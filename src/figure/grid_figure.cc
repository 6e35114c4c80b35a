#include "figure/grid_figure.h"

#include <fmt/format.h>

#include "figure/plot/axis.h"

namespace chalcedony {
namespace {

constexpr int kFifths = 5;

/// Lines across and down at multiples of `step`, but not of `except`.
std::string lines_at(double width, double height, double step, int except) {
  std::string data;
  for (int i = 1; i * step < width; ++i)
    if (except == 0 || i % except != 0)
      data += fmt::format("{0:.9g} 0\n{0:.9g} {1:.9g}\n\n", i * step, height);
  for (int i = 1; i * step < height; ++i)
    if (except == 0 || i % except != 0)
      data += fmt::format("0 {0:.9g}\n{1:.9g} {0:.9g}\n\n", i * step, width);
  return data;
}

}  // namespace

void add_grid_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const Thumbnail& picture) {
  const double width = picture.width * picture.pixels_per_cell;
  const double height = picture.height * picture.pixels_per_cell;
  const double step = coordinate_step(width, height);
  const bool thin = step >= kFifths;  // no lines within a pixel
  const Box body = plot.begin(
      path, name,
      fmt::format("pixels from the top left; {}lines every {:.6g}", thin ? "strong " : "", step) +
          (thin ? fmt::format(", thin ones every {:.6g}", step / kFifths) : ""),
      Plot::height_for(picture));
  // Dark beside light, so that lines are seen on any color.
  std::string over;
  const auto draw = [&](const std::string& lines, double dark, double light, const char* veil) {
    if (lines.empty()) return;
    const std::string data = plot.store(lines);
    over += fmt::format(
        "{0}{1} with lines lw {2} lc rgb '#{4}000000' notitle, "
        "{1} with lines lw {3} lc rgb '#{4}ffffff' notitle",
        over.empty() ? "" : ", ", data, dark, light, veil);
  };
  if (thin) draw(lines_at(width, height, step / kFifths, kFifths), 1.6, 0.7, "a0");
  draw(lines_at(width, height, step, 0), 3.2, 1.4, "30");
  plot.show(body, "", picture, {over, {}, true});
}

}  // namespace chalcedony
