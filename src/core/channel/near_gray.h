// Pixels so near to gray that their hue says little, or that they have none. How near: the largest
// of r g b less the smallest.
#ifndef CHALCEDONY_CORE_CHANNEL_NEAR_GRAY_H_
#define CHALCEDONY_CORE_CHANNEL_NEAR_GRAY_H_

#include <cstddef>
#include <cstdint>

#include "core/pixel/block.h"
#include "core/planes.h"

namespace chalcedony {

/// How many pixels of a Block that count are nearer to gray than `limit`, by their weights.
///
/// Units     r g b and the limit in 0-255
std::uint64_t count_near_gray(const ConstPlanes& rgb, float limit, const Block& block);

/// Copies the hues of n pixels; those of pixels no farther from gray than `floor` become NaN.
///
/// Shape     `out` is padded as planes are, and none of the other planes
/// Units     r g b and the floor in 0-255
void blank_hues(const ConstPlanes& rgb, const float* hues, float floor, std::size_t n, float* out);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CHANNEL_NEAR_GRAY_H_
