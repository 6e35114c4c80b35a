// Regions of a picture of labels as sample regions.
#ifndef CHALCEDONY_JOB_LEARN_REGION_SAMPLES_H_
#define CHALCEDONY_JOB_LEARN_REGION_SAMPLES_H_

#include <string>
#include <vector>

#include "core/learn/sample_shape.h"
#include "core/region/outlines.h"
#include "io/picture/label_picture.h"

namespace chalcedony {

/// A polygon for each region, which holds exactly its pixels.
///
/// Shape     `labels` and `rings` one for each region; `names` and `colors` by label
SampleSet samples_of_regions(const std::vector<Label>& labels,
                             const std::vector<std::vector<Ring>>& rings,
                             const std::vector<std::string>& names,
                             const std::vector<std::string>& colors);

/// All regions of a picture of labels.
SampleSet samples_of_labels(const LabelPicture& picture);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_REGION_SAMPLES_H_
