// `cluster`: groups of colors, found without samples.
#ifndef CHALCEDONY_JOB_CLUSTER_CLUSTER_H_
#define CHALCEDONY_JOB_CLUSTER_CLUSTER_H_

#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/cluster/gaussian_mixture.h"
#include "core/cluster/k_means.h"
#include "core/learn/feature_scaling.h"
#include "job/cluster/grouping.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

enum class ClusterMethod { kMeans, kMixture };

/// Whether the probability of every class is written as a picture, and in which depth.
enum class ProbabilityPictures { kNone, k16, kFloat };

struct ClusterOptions {
  SharedOptions shared;
  ClusterMethod method = ClusterMethod::kMeans;
  std::size_t first_k = 1, last_k = 10;
  std::vector<Channel> features;  // empty: oklab
  FeatureScaling scaling = FeatureScaling::kBySpreadWhenUnitsDiffer;
  KMeansOptions groups;    // k and seed are set by the job
  MixtureOptions mixture;  // smallest_spread is set by the job
  GroupOrder order = GroupOrder::kShare;
  GroupColors colors = GroupColors::kCenters;
  ProbabilityPictures probabilities = ProbabilityPictures::kNone;
  std::optional<std::filesystem::path> model;  // groups that were found before
  std::vector<std::pair<std::size_t, std::string>> names;
  std::vector<std::pair<std::string, std::vector<std::size_t>>> merges;
};

const std::vector<ResultKind>& cluster_results();

/// Errors    InputError, OutputError: the groups are of all pictures together, so one that fails
///           ends the run
Json run_cluster(const ClusterOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CLUSTER_CLUSTER_H_
