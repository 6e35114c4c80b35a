// The class map of a picture, with its areas and its figure.
#ifndef CHALCEDONY_JOB_CLASS_MAP_H_
#define CHALCEDONY_JOB_CLASS_MAP_H_

#include <filesystem>
#include <string>

#include "core/learn/classifier.h"
#include "figure/plot.h"
#include "job/context.h"
#include "job/results.h"
#include "job/summary.h"

namespace chalcedony {

/// Gives each counted pixel its class by `classifier`, which is one for `model`. Writes
/// <stem>.THING.png, <stem>.areas.csv and <stem>.THING.figure where results named THING, `areas`
/// and `figure` are wanted. Returns the summary of this input.
///
/// Errors    InputError, OutputError; no file is left then
Json write_class_map(const std::filesystem::path& input, const Model& model,
                     const Classifier& classifier, const std::string& thing,
                     const SharedOptions& options, const Context& context, Results& results,
                     FigureFormat figures);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CLASS_MAP_H_
