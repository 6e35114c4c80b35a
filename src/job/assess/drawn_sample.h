// The pixels of an assessment that are drawn, from all maps together.
#ifndef CHALCEDONY_JOB_ASSESS_DRAWN_SAMPLE_H_
#define CHALCEDONY_JOB_ASSESS_DRAWN_SAMPLE_H_

#include <cstdint>
#include <vector>

#include "core/assess/sample_draw.h"
#include "job/assess/assess.h"
#include "job/assess/assessed_maps.h"

namespace chalcedony {

/// Draws as the options say; of the random designs in the order of the draw, of a grid in raster
/// order. Pixels are numbered through all maps. `strata` are the pixels that can be drawn from each
/// row of the matrix. Warnings go to the context.
///
/// Errors    InputError when none would be drawn, see also plan_draw; Interrupted
std::vector<DrawnPixel> drawn_sample(AssessedMaps& maps, const MatchedMaps& matched,
                                     const std::vector<std::uint64_t>& strata,
                                     const AssessOptions& options, const Context& context);

/// All pixels that have a label in their references, in raster order: for tables of pixels, which
/// have few. Numbered as above.
///
/// Errors    Interrupted
std::vector<DrawnPixel> labelled_pixels(AssessedMaps& maps, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_DRAWN_SAMPLE_H_
