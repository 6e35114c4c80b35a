// Samples painted over a copy of the picture.
#ifndef CHALCEDONY_JOB_LEARN_PAINTED_SAMPLES_H_
#define CHALCEDONY_JOB_LEARN_PAINTED_SAMPLES_H_

#include <filesystem>
#include <string>
#include <utility>
#include <vector>

#include "core/learn/sample_shape.h"
#include "job/picture/inputs.h"

namespace chalcedony {

/// The strokes of a painted copy: pixels that differ from the picture, each exact color a class. A
/// color is a stroke when it fills a square of 3 x 3 pixels somewhere, so that the soft edges of a
/// brush are none. Classes bear the names of `named` (name and CSS color); others are called by
/// their color. The picture is read, and rewound.
///
/// Errors    InputError: lossy, of another size, with no strokes or more than 255 colors of them
SampleSet painted_samples(const std::filesystem::path& copy, CountedPicture& picture,
                          const std::vector<std::pair<std::string, std::string>>& named,
                          const SharedOptions& options);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_PAINTED_SAMPLES_H_
