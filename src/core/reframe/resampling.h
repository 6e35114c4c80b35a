// How the pixels along one side of a picture become more or fewer.
#ifndef CHALCEDONY_CORE_REFRAME_RESAMPLING_H_
#define CHALCEDONY_CORE_REFRAME_RESAMPLING_H_

#include <array>
#include <cstdint>
#include <vector>

namespace chalcedony {

enum class Interpolation {
  kBicubic,  // Keys (1981), Cubic convolution interpolation, with a = -1/2
  kLanczos,  // Duchon (1979), Lanczos filtering, three lobes
  kNearest,  // the pixel that holds the center: for labels
};

/// What one new pixel takes of the old ones from `first` on; the weights add up to 1.
struct Taps {
  std::uint32_t first = 0;
  std::vector<float> weights;
};

/// For each of `out` new pixels, what it takes of `in` old ones. Fewer pixels are averages over the
/// area they cover, whatever `enlarging` says, unless it is kNearest. Beyond its ends the side goes
/// on as its mirror image.
std::vector<Taps> taps_along(std::uint32_t in, std::uint32_t out, Interpolation enlarging);

/// The weights of the four pixels around a place that lies `t` past the second of them.
///
/// Range     t in [0, 1)
/// Source    Keys (1981), a = -1/2
inline std::array<float, 4> bicubic_weights(double t) {
  // Keys' cubic at 1 + t, t, 1 - t and 2 - t, multiplied out.
  const double second = (1.5 * t - 2.5) * t * t + 1, third = ((-1.5 * t + 2) * t + 0.5) * t;
  const double first = ((-0.5 * t + 1) * t - 0.5) * t, last = (0.5 * t - 0.5) * t * t;
  return {static_cast<float>(first), static_cast<float>(second), static_cast<float>(third),
          static_cast<float>(last)};
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REFRAME_RESAMPLING_H_
