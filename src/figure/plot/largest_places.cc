#include "figure/plot/largest_places.h"

#include <algorithm>
#include <numeric>

namespace chalcedony {

std::vector<std::size_t> largest_places(const std::vector<double>& values, std::size_t most) {
  std::vector<std::size_t> places(values.size());
  std::iota(places.begin(), places.end(), std::size_t{0});
  std::stable_sort(places.begin(), places.end(),
                   [&](std::size_t a, std::size_t b) { return values[a] > values[b]; });
  places.resize(std::min(places.size(), most));
  std::sort(places.begin(), places.end());
  return places;
}

}  // namespace chalcedony
