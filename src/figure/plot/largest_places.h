// Which of many things a page shows.
#ifndef CHALCEDONY_FIGURE_PLOT_LARGEST_PLACES_H_
#define CHALCEDONY_FIGURE_PLOT_LARGEST_PLACES_H_

#include <cstddef>
#include <vector>

namespace chalcedony {

/// The places of so many of the largest values, or of all where there are no more, from the first
/// place to the last; of equal values the first ones.
std::vector<std::size_t> largest_places(const std::vector<double>& values, std::size_t most);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_LARGEST_PLACES_H_
