#include "core/cluster/knee.h"

namespace chalcedony {

std::size_t knee(const std::vector<double>& values) {
  if (values.size() < 3) return 0;
  const double first = values.front(), last = values.back();
  if (!(first > last)) return 0;
  std::size_t place = 0;
  double deepest = 1e-9;  // a straight line has no knee, whatever rounding says
  for (std::size_t i = 0; i < values.size(); ++i) {
    const double along = static_cast<double>(i) / static_cast<double>(values.size() - 1);
    // The line falls from 1 to 0. Distances to it differ from drops below it by one factor.
    const double drop = (1 - along) - (values[i] - last) / (first - last);
    if (drop <= deepest) continue;
    deepest = drop;
    place = i;
  }
  return place;
}

}  // namespace chalcedony
