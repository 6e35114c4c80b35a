// Intervals of the values of one channel as classes.
#ifndef CHALCEDONY_CORE_SELECT_SLICES_H_
#define CHALCEDONY_CORE_SELECT_SLICES_H_

#include <cstddef>
#include <memory>
#include <span>
#include <string>
#include <utility>
#include <vector>

#include "core/channel/channel.h"
#include "core/learn/classifier.h"

namespace chalcedony {

/// Values low <= v < high; the last slice of a list, and one at the end of the channel's usual
/// range, holds `high` too. Of a hue, `low` may be above `high`: through 360.
struct Slice {
  std::string name;
  std::string color;  // CSS hexadecimal
  double low = 0;
  double high = 0;
};

/// What is not as people mostly want it.
struct SliceFaults {
  std::vector<std::pair<std::size_t, std::size_t>> overlaps;  // places in the list
  std::vector<std::pair<double, double>> gaps;                // between slices; not for a hue
};
SliceFaults faults_of(const Channel& channel, const std::vector<Slice>& slices);

/// A model that has one class for each slice (those of one name are one class of the map), and its
/// classifier: a value in several slices belongs to the first of them; one in none, or a pixel
/// without hue, to no class.
Model slice_model(const Channel& channel, const std::vector<Slice>& slices);
std::unique_ptr<Classifier> make_slicer(const Channel& channel, const std::vector<Slice>& slices);

/// The values that part bins into `parts` of as many pixels each, as near as bins allow: parts + 1
/// ends. `edges` has one more entry than `counts`.
std::vector<double> quantile_ends(std::span<const std::uint64_t> counts,
                                  std::span<const double> edges, std::size_t parts);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_SELECT_SLICES_H_
