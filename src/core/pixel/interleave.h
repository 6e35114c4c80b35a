// Stored, interleaved samples to planes of channel values and back.
#ifndef CHALCEDONY_CORE_PIXEL_INTERLEAVE_H_
#define CHALCEDONY_CORE_PIXEL_INTERLEAVE_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <span>

#include "core/pixel/raster.h"

namespace chalcedony {

/// Reads one channel of n stored pixels: value = sample * factor + offset.
///
/// Shape     `stored` holds n pixels of `channels` samples; `plane` is padded as in planes.h
void read_plane(const std::byte* stored, std::uint32_t channels, SampleType sample,
                std::uint32_t channel, SampleScale scale, float* plane, std::size_t n);

/// Reads the first three channels of n stored pixels at once; the common layouts are vectorised.
void read_planes(const std::byte* stored, std::uint32_t channels, SampleType sample,
                 const std::array<SampleScale, 3>& scale, const Planes& planes, std::size_t n);

/// Writes one channel of n pixels: the inverse of read_plane, rounded to nearest for integers and
/// clipped to their range; NaN becomes 0.
void write_plane(const float* plane, std::size_t n, std::uint32_t channels, SampleType sample,
                 std::uint32_t channel, SampleScale scale, std::byte* stored);

/// Writes three channels at once, as the first three of `channels`; the others stay as they are.
void write_planes(const ConstPlanes& planes, std::size_t n, std::uint32_t channels,
                  SampleType sample, const std::array<SampleScale, 3>& scale, std::byte* stored);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_INTERLEAVE_H_
