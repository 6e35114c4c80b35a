// Means by a Gaussian that cost the same whatever its reach.
#ifndef CHALCEDONY_CORE_FILTER_RUNNING_GAUSSIAN_H_
#define CHALCEDONY_CORE_FILTER_RUNNING_GAUSSIAN_H_

#include <array>
#include <cstddef>
#include <vector>

#include "core/filter/tile.h"

namespace chalcedony {

/// A Gaussian as a sum of cosines over its reach. The sum of values under each cosine runs on from
/// pixel to pixel: it turns by an angle, one value enters and one leaves.
///
/// Accuracy  sums are within 4e-5 of the range of the values of those by the weights themselves, in
///           each direction; an even picture stays even
/// Source    Elboher and Werman (2012), cosine integral images; Charalampidis (2016), recursive
///           Gaussians of truncated cosine functions
class RunningGaussian {
 public:
  /// `weights`: from the middle outward, adding up to 1 over both sides (gaussian_weights).
  explicit RunningGaussian(const std::vector<float>& weights);

  /// Sums of the values around each pixel by the weights, across and then down.
  ///
  /// Shape     `values` is larger than `out` by the reach on all four sides
  /// Cost      in the number of pixels of `values` alone
  void sums(const Tile& values, Tile& out) const;

  static constexpr std::size_t kCosines = 5;

  /// One of them.
  struct Cosine {
    double share = 0;               // of the Gaussian
    double turn_x = 0, turn_y = 0;  // cosine and sine of its step from pixel to pixel
    double edge_x = 0, edge_y = 0;  // of the angle at the end of the reach
  };

 private:
  void run(const std::vector<float>& strip, std::vector<float>& out) const;

  std::size_t reach_;
  double level_ = 0;  // the share that is the same over the whole reach
  std::array<Cosine, kCosines> cosines_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_RUNNING_GAUSSIAN_H_
