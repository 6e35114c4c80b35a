#include "core/filter/median.h"

#include "core/filter/box_median.h"
#include "core/filter/median_of_few.h"
#include "core/filter/moving_median.h"
#include "core/filter/ranked_tile.h"
#include "core/filter/value_kinds.h"

namespace chalcedony {

void window_median(const Tile& values, const Window& window, Tile& out) {
  // From here on moving a window of codes on is quicker.
  constexpr std::size_t kFewCodes = 49;
  const ValueKinds kinds = kinds_of(values);
  if (window.pixels() <= (kinds.others ? kFewInWindow : kFewCodes) && !kinds.nan) {
    median_of_few(values, window, out);
  } else if (kinds.others) {
    moving_median(ranked(values), window, out);
  } else if (window.is_box() && window.rows() <= kLargestBoxSide) {
    box_median_of_codes(ranked_codes(values), window.rows(), out);
  } else {
    moving_median_of_codes(ranked_codes(values), window, out);
  }
}

}  // namespace chalcedony
