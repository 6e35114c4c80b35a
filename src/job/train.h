// `train`: a model from sample regions.
#ifndef CHALCEDONY_JOB_TRAIN_H_
#define CHALCEDONY_JOB_TRAIN_H_

#include <string>
#include <utility>
#include <vector>

#include "core/color/channel.h"
#include "job/context.h"
#include "job/results.h"
#include "job/summary.h"

namespace chalcedony {

/// How frequent the classes are taken to be.
enum class Priors { kEven, kSamples, kGiven };

struct TrainOptions {
  SharedOptions shared;
  std::vector<std::filesystem::path> samples;  // one for each input, in their order, or none
  std::vector<std::pair<std::string, std::string>> places;  // class and place, on the one input
  std::string method = "minimum-distance";
  double box_spread = 0;  // parallelepiped; see Model
  Priors priors = Priors::kEven;
  std::vector<std::pair<std::string, double>> given_priors;  // kGiven: class and number
  std::vector<Channel> features;                             // empty: lab.l, lab.a, lab.b
};

const std::vector<ResultKind>& train_results();

/// Errors    any bad input stops the run: there is one result for all of them
Json run_train(const TrainOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_TRAIN_H_
