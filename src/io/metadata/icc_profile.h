// Color profiles inside pictures.
#ifndef CHALCEDONY_IO_METADATA_ICC_PROFILE_H_
#define CHALCEDONY_IO_METADATA_ICC_PROFILE_H_

#include <cstddef>
#include <span>

#include "core/color/rgb_profile.h"

namespace chalcedony {

/// Reads an RGB profile of curves and a matrix, or a gray profile of a curve.
///
/// Errors    InputError that says why it cannot be used: look-up tables, another color model, or
///           damaged
/// Source    ICC.1:2010, clauses 7 to 10
RgbProfile parse_icc(std::span<const std::byte> bytes);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_METADATA_ICC_PROFILE_H_
