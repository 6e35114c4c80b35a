#include "core/filter/median.h"

#include <algorithm>
#include <cmath>

#include "core/filter/box_median.h"
#include "core/filter/median_of_few.h"
#include "core/filter/moving_median.h"
#include "core/filter/ranked_tile.h"

namespace chalcedony {
namespace {

bool holds_no_nan(const Tile& tile) {
  const float* const first = tile.row(0);
  return std::none_of(first, first + tile.width() * tile.height(),
                      [](float v) { return std::isnan(v); });
}

}  // namespace

void window_median(const Tile& values, const Window& window, Tile& out) {
  // From here on moving a window of codes on is quicker.
  constexpr std::size_t kFewCodes = 49;
  const bool codes = holds_codes(values);
  if (window.pixels() <= (codes ? kFewCodes : kFewInWindow) && holds_no_nan(values)) {
    median_of_few(values, window, out);
  } else if (!codes) {
    moving_median(ranked(values), window, out);
  } else if (window.is_box() && window.rows() <= kLargestBoxSide) {
    box_median_of_codes(ranked_codes(values), window.rows(), out);
  } else {
    moving_median_of_codes(ranked_codes(values), window, out);
  }
}

}  // namespace chalcedony
