// Whether a model can be used on a picture.
#ifndef CHALCEDONY_JOB_LEARN_MODEL_FIT_H_
#define CHALCEDONY_JOB_LEARN_MODEL_FIT_H_

#include <string>

#include "core/learn/model.h"
#include "core/pixel/raster.h"

namespace chalcedony {

/// How a file stores its samples, as models note it: "8", "16" or "float".
std::string depth_of(const PictureInfo& info);

/// Returns what is worth a note: another depth than that of the pictures the model learned from;
/// empty for none.
///
/// Errors    InputError when the model looks at stored numbers (file.N) and the picture stores
///           others: another number of channels, or another depth
std::string note_on_fit(const Model& model, const PictureInfo& info);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_MODEL_FIT_H_
