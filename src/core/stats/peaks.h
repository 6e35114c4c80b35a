// The peaks of a histogram of one or two channels, each with the bins that belong to it.
#ifndef CHALCEDONY_CORE_STATS_PEAKS_H_
#define CHALCEDONY_CORE_STATS_PEAKS_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <span>
#include <vector>

namespace chalcedony {

/// An axis of the histogram.
struct PeakAxis {
  std::size_t bins = 1;
  bool circular = false;  // a hue: the last bin meets the first
};

/// Bins first, first + 1, ... (count of them); on a circular axis they may go on at 0.
struct BinRange {
  std::size_t first = 0;
  std::size_t count = 0;
};

struct Peak {
  std::array<BinRange, 2> range;  // on each axis
  std::uint64_t pixels = 0;       // in the bins that belong to it
};

/// Standard deviation, in bins, of the Gaussian that smooths an axis before peaks are sought.
double peak_smoothing(const PeakAxis& axis);

/// The `most` peaks with the most pixels, largest first. `counts` runs over the second axis
/// fastest; a histogram of one channel has a second axis of one bin.
///
/// The smoothed histogram is flooded from its highest bin down: each bin joins the peak of its
/// highest neighbor, two peaks stay apart where the lower one rises at least half above the pass
/// between them, and bins under a hundredth of their peak's height belong to none. The range of a
/// peak on an axis holds all its pixels but half a percent on either side.
///
/// Cost      O(n log n) in the number of bins
/// Source    watershed by flooding (Vincent and Soille 1991), with peaks judged by their
///           persistence (Edelsbrunner, Letscher and Zomorodian 2002)
std::vector<Peak> find_peaks(std::span<const std::uint64_t> counts, const PeakAxis& first,
                             const PeakAxis& second, std::size_t most);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_PEAKS_H_
