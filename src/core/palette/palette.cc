#include "core/palette/palette.h"

#include <algorithm>

#include "core/palette/color_name.h"
#include "core/palette/contrast.h"

namespace chalcedony {

Palette make_palette(const std::vector<GroupLook>& looks) {
  std::vector<GroupLook> sorted;
  double pixels = 0;
  for (const GroupLook& look : looks) {
    if (look.pixels <= 0) continue;
    sorted.push_back(look);
    pixels += look.pixels;
  }
  std::stable_sort(sorted.begin(), sorted.end(), [](const GroupLook& a, const GroupLook& b) {
    return a.pixels != b.pixels ? a.pixels > b.pixels : a.oklab[0] > b.oklab[0];
  });
  find_neighbors(sorted);
  const Color black{&spaces::kSrgb, {0, 0, 0}}, white{&spaces::kSrgb, {255, 255, 255}};
  Palette palette;
  for (const GroupLook& look : sorted) {
    PaletteColor& one = palette.emplace_back(PaletteColor{look, 100 * look.pixels / pixels, {}});
    one.name = color_name(one.color());
    one.contrast_black = contrast_ratio(one.color(), black);
    one.contrast_white = contrast_ratio(one.color(), white);
  }
  return palette;
}

double contrast_within(const Palette& palette, std::size_t a, std::size_t b) {
  return contrast_ratio(palette[a].color(), palette[b].color());
}

}  // namespace chalcedony
