// `train`: a model from sample regions.
#ifndef CHALCEDONY_JOB_LEARN_TRAIN_H_
#define CHALCEDONY_JOB_LEARN_TRAIN_H_

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/channel/channel.h"
#include "job/learn/sample_source.h"
#include "job/learn/trained_model.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

/// What --method says for every method there is.
inline constexpr const char* kAllMethods = "all";

struct TrainOptions {
  SharedOptions shared;
  SampleSources sources;
  std::string method = "minimum-distance";  // or kAllMethods
  TrainingRules rules;
  std::vector<Channel> features = channels_of(spaces::kLab);
  double trim = 0;            // robust standard deviations; 0: nothing is trimmed
  double held_share = 0;      // of the samples that only test the model, 0-1
  bool mean_colors = false;   // classes without a color get the mean of their sample pixels
  bool keep_samples = false;  // write them as a table, to train with others later
  /// Places in features_of(features) of those of the scatter figure; the two most telling ones
  /// otherwise.
  std::optional<std::pair<std::size_t, std::size_t>> scatter;
};

const std::vector<ResultKind>& train_results();

/// Errors    any bad input stops the run: there is one result for all of them
Json run_train(const TrainOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_TRAIN_H_
