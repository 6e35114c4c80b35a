// The samples of an earlier training, to train with again.
#ifndef CHALCEDONY_JOB_LEARN_EARLIER_SAMPLES_H_
#define CHALCEDONY_JOB_LEARN_EARLIER_SAMPLES_H_

#include <filesystem>
#include <vector>

#include "core/learn/model.h"

namespace chalcedony {

/// The pictures that a model was trained on with their samples, whose classes have the colors of
/// the model's. A picture is one of `inputs` by the name of its file.
///
/// Errors    InputError when the model cannot be read, knows no samples, or was trained on a
/// picture
///           that is none of the inputs
std::vector<TrainingPicture> earlier_samples(const std::filesystem::path& model,
                                             const std::vector<std::filesystem::path>& inputs);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_EARLIER_SAMPLES_H_
