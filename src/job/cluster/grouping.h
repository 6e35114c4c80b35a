// One grouping of the colors: a model, its classes in order, and what they look like.
#ifndef CHALCEDONY_JOB_CLUSTER_GROUPING_H_
#define CHALCEDONY_JOB_CLUSTER_GROUPING_H_

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/cluster/gaussian_mixture.h"
#include "core/cluster/k_means.h"
#include "core/learn/model.h"
#include "core/palette/group_look.h"
#include "job/cluster/color_points.h"

namespace chalcedony {

enum class GroupOrder { kShare, kLightness };
enum class GroupColors { kCenters, kDistinct };

struct Grouping {
  std::size_t k = 0;  // groups asked for
  Model model;
  std::vector<GroupLook> looks;  // of each entry of the model
  // The entry each point falls to, 1 for the first, as the classifier of the model says; room for
  // the padding is at the end.
  std::vector<std::uint8_t> labels;
  std::optional<KMeans> k_means;
  std::optional<GaussianMixture> mixture;
  double sum_of_squares = 0;  // within groups, in the divided features
};

/// A byte tells which group a point or a pixel falls to.
inline constexpr std::size_t kMostGroupNumbers = 255;

/// What is common to all groupings of a run.
struct GroupingFrame {
  std::vector<Channel> features;
  std::string scaling = "none";
  std::vector<double> divisors;
  GroupOrder order = GroupOrder::kShare;
  GroupColors colors = GroupColors::kCenters;
};

/// A grouping from the centers k-means found. Its model is good for classifying; complete_model()
/// adds the rest.
Grouping grouping_of(KMeans result, const ColorPoints& colors, const GroupingFrame& frame);

/// A grouping from a mixture, likewise.
Grouping grouping_of(GaussianMixture result, const ColorPoints& colors, const GroupingFrame& frame);

/// A grouping by a model that is there already; its order, names and colors stay.
Grouping grouping_of(Model model, const ColorPoints& colors);

/// What only a model that is written needs: the statistics of the entries' points, and how far
/// they reach, for classify --reject (see ModelClass).
void complete_model(Grouping& grouping, const ColorPoints& colors);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CLUSTER_GROUPING_H_
