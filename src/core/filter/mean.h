// Means over a window: all its pixels alike, or by a Gaussian.
#ifndef CHALCEDONY_CORE_FILTER_MEAN_H_
#define CHALCEDONY_CORE_FILTER_MEAN_H_

#include "core/filter/tile.h"
#include "core/filter/window.h"

namespace chalcedony {

// Shape     `values` is larger than `out` by the reach on all four sides; so is `weights`, which
//           says how much each pixel lends, or is null where all lend alike. Where nothing lends,
//           `out` is NaN. Values must be finite.

/// The mean over a window: sums in double.
///
/// Cost      a box: in the number of pixels alone (running sums); a disk: in its rows
void window_mean(const Tile& values, const Tile* weights, const Window& window, Tile& out);

/// The weights of a Gaussian, from its middle outward, which add up to 1 over both sides; they end
/// four standard deviations away.
std::vector<float> gaussian_weights(double standard_deviation);

/// A Gaussian that reaches farther is summed by RunningGaussian, which is quicker from there on.
inline constexpr std::size_t kFarReach = 16;

/// The mean by a Gaussian, across and then down.
///
/// Accuracy  up to kFarReach by the weights themselves, beyond it that of RunningGaussian
/// Cost      up to kFarReach in the reach, beyond it in the number of pixels alone
void gaussian_mean(const Tile& values, const Tile* weights, const std::vector<float>& gaussian,
                   Tile& out);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_MEAN_H_
