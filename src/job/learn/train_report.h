// The tables and the summary of a training.
#ifndef CHALCEDONY_JOB_LEARN_TRAIN_REPORT_H_
#define CHALCEDONY_JOB_LEARN_TRAIN_REPORT_H_

#include <optional>
#include <string>
#include <vector>

#include "core/assess/error_matrix.h"
#include "core/learn/model.h"
#include "core/learn/sample_table.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

/// How a model does on samples.
struct TrainedScore {
  Model model;
  ErrorMatrix samples;              // on those it was trained on
  std::optional<ErrorMatrix> held;  // on those that were held out
  std::string problem;              // why the method could not be trained; then nothing else holds
};

/// The statistics of every class and feature: over all sample pixels and, when they were trimmed,
/// over those that were kept.
void write_sample_statistics(const std::filesystem::path& path, const Model& model,
                             const SampleTable& all, const SampleTable* kept);

/// What every sample pixel was taken for, those trained on and those held out.
void write_confusion(const std::filesystem::path& path, const TrainedScore& score);

/// Every method with its score.
void write_methods(const std::filesystem::path& path, const std::vector<TrainedScore>& scores);

/// How far apart every two classes are, as model_json() has it.
void write_separability(const std::filesystem::path& path, const Json& pairs);

/// Of one matrix: overall, kappa, and the pair confused most.
Json score_json(const ErrorMatrix& matrix, const Model& model);
/// Of every method.
Json methods_json(const std::vector<TrainedScore>& scores);

/// The model for a summary, with what its samples say.
Json model_json(const TrainedScore& score);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_TRAIN_REPORT_H_
