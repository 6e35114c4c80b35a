// The main colors of a picture, in order, as people see them.
#ifndef CHALCEDONY_CORE_PALETTE_PALETTE_H_
#define CHALCEDONY_CORE_PALETTE_PALETTE_H_

#include <string>
#include <vector>

#include "core/color/css_color.h"
#include "core/palette/group_look.h"

namespace chalcedony {

struct PaletteColor {
  GroupLook look;
  double percent = 0;         // share of the pixels of the palette
  std::string name;           // in plain words
  double contrast_black = 1;  // contrast ratio of WCAG with #000000
  double contrast_white = 1;  // and with #ffffff

  Color color() const { return {&spaces::kOklab, look.oklab}; }
  Color typical() const { return {&spaces::kOklab, look.typical}; }
  /// Whether black text on it can be read better than white.
  bool takes_black() const { return contrast_black >= contrast_white; }
};

using Palette = std::vector<PaletteColor>;

/// The palette of groups of colors: by share, then from light to dark; groups without pixels are
/// left out.
Palette make_palette(const std::vector<GroupLook>& looks);

/// The contrast ratio of two colors of a palette as they are written, in 8 bits.
double contrast_within(const Palette& palette, std::size_t a, std::size_t b);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_PALETTE_H_
