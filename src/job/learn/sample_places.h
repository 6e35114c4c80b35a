// Places on a picture that options name: points, disks, rectangles, sample files.
#ifndef CHALCEDONY_JOB_LEARN_SAMPLE_PLACES_H_
#define CHALCEDONY_JOB_LEARN_SAMPLE_PLACES_H_

#include <string>

#include "core/learn/sample_shape.h"
#include "core/pixel/raster.h"
#include "job/run/context.h"

namespace chalcedony {

/// Adds the places of a text to a class of samples: `x,y` (the pixel that holds it), `x,y,radius`,
/// `x,y,w,h`, or FILE.geojson, of which all samples are taken, or those of FILE.geojson:CLASS.
///
/// Errors    UsageError for a text that is none of these; InputError from the file, or when it has
///           no such class
void add_places(const std::string& text, std::size_t sample_class, const RasterShape& picture,
                const SharedOptions& options, SampleSet& samples);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_SAMPLE_PLACES_H_
