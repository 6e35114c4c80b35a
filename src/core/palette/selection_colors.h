// The colors of classes that are selections.
#ifndef CHALCEDONY_CORE_PALETTE_SELECTION_COLORS_H_
#define CHALCEDONY_CORE_PALETTE_SELECTION_COLORS_H_

#include <optional>
#include <vector>

#include "core/color/css_color.h"
#include "core/select/expression.h"
#include "core/select/selected_classes.h"

namespace chalcedony {

/// The color that a selection speaks of: the middle of an interval of a hue, or what others are
/// near to; of several, joined by `and`, the first. Of nothing but limits of a lightness the gray
/// in their middle. None where it speaks of no color.
std::optional<Color> color_meant(const Expression& selection);

/// Gives a color to each class that has none, the same to those of one name: what their selections
/// speak of, unless a class before looks like that (10 of CIEDE2000); else the first class_color()
/// that none looks like.
void give_colors(std::vector<SelectedClass>& selected);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_SELECTION_COLORS_H_
