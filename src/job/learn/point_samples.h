// Points of a table as samples.
#ifndef CHALCEDONY_JOB_LEARN_POINT_SAMPLES_H_
#define CHALCEDONY_JOB_LEARN_POINT_SAMPLES_H_

#include <filesystem>
#include <string>

#include "core/learn/sample_shape.h"
#include "core/pixel/raster.h"
#include "io/document/truth_table.h"
#include "job/run/context.h"

namespace chalcedony {

/// The pixels of a table that have a class, each a sample of it, on a picture that messages call
/// `what`. It is warned of those that have none.
///
/// Errors    InputError, naming the file, for a pixel outside of the picture, and when none has a
///           class
SampleSet samples_of_points(const TruthTable& table, const std::filesystem::path& file,
                            const RasterShape& picture, const std::string& what,
                            const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_POINT_SAMPLES_H_
