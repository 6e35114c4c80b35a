// `classify`: class maps of pictures by a model.
#ifndef CHALCEDONY_JOB_CLASSIFY_H_
#define CHALCEDONY_JOB_CLASSIFY_H_

#include <filesystem>
#include <string>

#include "core/learn/model.h"
#include "core/pixel/raster.h"
#include "job/class_map.h"
#include "job/context.h"
#include "job/results.h"
#include "job/summary.h"

namespace chalcedony {

struct ClassifyOptions {
  SharedOptions shared;
  std::filesystem::path model;
  double reject_percent = 0;  // see make_classifier()
  ClassMapOptions map;
};

const std::vector<ResultKind>& classify_results();

/// Errors    InputError when the model cannot be used; a picture that fails is listed and the
///           others go on
Json run_classify(const ClassifyOptions& options, const Context& context);

/// How a file stores its samples, as models note it: "8", "16" or "float".
std::string depth_of(const PictureInfo& info);

/// Whether a model can be used on a picture. Returns what is worth a note: another depth than that
/// of the pictures it learned from; empty for none.
///
/// Errors    InputError when the model looks at stored numbers (file.N) and the picture stores
///           others: another number of channels, or another depth
std::string note_on_fit(const Model& model, const PictureInfo& info);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CLASSIFY_H_
