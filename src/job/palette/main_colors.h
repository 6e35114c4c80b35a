// Finds the palette of a picture.
#ifndef CHALCEDONY_JOB_PALETTE_MAIN_COLORS_H_
#define CHALCEDONY_JOB_PALETTE_MAIN_COLORS_H_

#include <cstddef>
#include <string>

#include "core/palette/palette.h"
#include "job/cluster/color_points.h"
#include "job/run/context.h"

namespace chalcedony {

/// At most `most` colors, no two of them less than `apart` delta E from each other: k-means groups
/// in oklab, three for each color asked for, which are then merged.
Palette main_colors(const ColorPoints& colors, std::size_t most, double apart,
                    const SharedOptions& options);

/// Every color there is.
///
/// Errors    InputError with this remedy when there are more than `most`
Palette unique_colors(const ColorPoints& colors, std::size_t most, const std::string& remedy);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PALETTE_MAIN_COLORS_H_
