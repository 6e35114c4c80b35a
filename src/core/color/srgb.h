// The sRGB transfer function between encoded and linear-light samples.
#ifndef CHALCEDONY_CORE_COLOR_SRGB_H_
#define CHALCEDONY_CORE_COLOR_SRGB_H_

#include <cstddef>

#include "core/planes.h"

namespace chalcedony {

/// One sample, encoded and linear in 0-1, in double.
///
/// Source    IEC 61966-2-1:1999
double srgb_decoded(double encoded);
double srgb_encoded(double linear);

/// Decodes sRGB samples to linear light.
///
/// Units     encoded and linear samples in 0-255
/// Shape     n pixels of three planes padded as in planes.h; `out` may be `in`
/// Range     negative v decodes to -f(-v); v > 255 follows the curve
/// Accuracy  within 1e-4 of 255 of the double formula on [0, 255] (srgb_test.cc)
/// Source    IEC 61966-2-1:1999
void decode_srgb(const ConstPlanes& in, const Planes& out, std::size_t n);

/// Encodes linear light as sRGB; the inverse of decode_srgb, with the same contract.
void encode_srgb(const ConstPlanes& in, const Planes& out, std::size_t n);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_SRGB_H_
