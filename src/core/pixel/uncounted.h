// What becomes of pixels of a Block that do not count.
#ifndef CHALCEDONY_CORE_PIXEL_UNCOUNTED_H_
#define CHALCEDONY_CORE_PIXEL_UNCOUNTED_H_

#include <cstdint>

#include "core/pixel/block.h"
#include "core/pixel/label.h"

namespace chalcedony {

/// Their labels, or their flags (flags.h), become 0.
void clear_uncounted(const Block& block, std::uint8_t* labels);
void clear_uncounted(const Block& block, Label* labels);

/// Their values in a plane become `value`.
void fill_uncounted(const Block& block, float value, float* plane);

/// Their colors are close to white in `faded`, so that a region or a mask is seen in a figure;
/// those of pixels that count are as they are.
///
/// Units     sRGB in 0-255
void fade_uncounted(const Block& block, const ConstPlanes& srgb, const Planes& faded);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_UNCOUNTED_H_
