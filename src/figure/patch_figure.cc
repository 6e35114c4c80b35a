#include "figure/patch_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figure/plot/fitted_text.h"
#include "figure/plot/largest_places.h"

namespace chalcedony {
namespace {

// Of the page, in pixels.
constexpr double kPatchKeyHigh = 36, kLineHigh = 18, kCellGap = 20, kMostCell = 190;
constexpr double kCellShape = 1.4;  // width over height, strips and lines together
constexpr int kNamePoints = 10, kNumberPoints = 10;

/// What is known stands in the middle. It lies below the others too, so that no paper shines
/// through between them.
void draw_strips(Plot& plot, const Box& box, const ShownPatch& patch) {
  const auto strips = columns_of(box, 3, 0);
  plot.bare_swatch(box, css_hex(patch.known));
  plot.bare_swatch(strips[0], css_hex(patch.found));
  plot.bare_swatch(strips[2], css_hex(patch.corrected));
}

void draw_key(Plot& plot, const Box& key, std::size_t patches) {
  std::string text =
      "in each cell from the left: as found, as known, as corrected; below it how far the first "
      "and the last are from the known color";
  if (patches > kMostShownPatches)
    text += fmt::format(" (the {} of {} that stay farthest off)", kMostShownPatches, patches);
  plot.label(key.left, key.middle(), text, 11, Ink::kFaint);
}

/// As many as are shown, in their order: those that stay farthest off.
std::vector<ShownPatch> farthest(const std::vector<ShownPatch>& patches) {
  std::vector<double> off;
  for (const ShownPatch& patch : patches) off.push_back(patch.after);
  std::vector<ShownPatch> shown;
  for (const std::size_t place : largest_places(off, kMostShownPatches))
    shown.push_back(patches[place]);
  return shown;
}

void draw_cell(Plot& plot, Box cell, const ShownPatch& patch) {
  const Box numbers = cell.cut_bottom(kLineHigh), name = cell.cut_bottom(kLineHigh);
  draw_strips(plot, cell, patch);
  plot.label(name.left, name.middle() + 2, fitted_text(patch.name, name.width(), kNamePoints),
             kNamePoints);
  plot.label(numbers.left, numbers.middle(),
             fmt::format("{:.1f} to {:.1f}", patch.before, patch.after), kNumberPoints,
             Ink::kFaint);
}

}  // namespace

void add_patch_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                      const std::string& subtitle, const std::vector<ShownPatch>& patches) {
  Box body = plot.begin(path, "Patches of " + name, subtitle);
  draw_key(plot, body.cut_top(kPatchKeyHigh), patches.size());
  const std::vector<ShownPatch> shown = farthest(patches);
  const double cells_across =
      std::sqrt(static_cast<double>(shown.size()) * body.width() / body.height() / kCellShape);
  const auto across = static_cast<std::size_t>(std::max(1.0, std::ceil(cells_across)));
  const std::size_t down = (shown.size() + across - 1) / across;
  const double width = std::min(kMostCell * kCellShape,
                                (body.width() + kCellGap) / static_cast<double>(across) - kCellGap);
  const double height =
      std::min(kMostCell, (body.height() + kCellGap) / static_cast<double>(down) - kCellGap);
  for (std::size_t first = 0; first < shown.size(); first += across) {
    Box row = body.cut_top(height, kCellGap);
    for (std::size_t i = first; i < std::min(shown.size(), first + across); ++i)
      draw_cell(plot, row.cut_left(width, kCellGap), shown[i]);
  }
}

}  // namespace chalcedony
