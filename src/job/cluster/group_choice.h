// How many groups: the criteria of every number that was tried, and the one they suggest.
#ifndef CHALCEDONY_JOB_CLUSTER_GROUP_CHOICE_H_
#define CHALCEDONY_JOB_CLUSTER_GROUP_CHOICE_H_

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "figure/cluster_figure.h"
#include "job/cluster/color_points.h"
#include "job/cluster/grouping.h"

namespace chalcedony {

/// Pixels the silhouette is computed from.
inline constexpr std::size_t kSilhouettePixels = 2000;

struct GroupCriteria {
  std::size_t k = 0;
  double sum_of_squares = 0;
  double explained_percent = 0;  // of the sum of squares that one group leaves
  double silhouette = 0;
  std::optional<double> log_likelihood = {}, aic = {}, bic = {}, icl = {};
  std::size_t parameters = 0;
  std::optional<double> lone_percent = {};  // pixels unlike all their neighbors, over all pictures;
                                            // none where there are only tables of colors
};

/// The criteria of each grouping, over numbers of groups that rise by one.
std::vector<GroupCriteria> criteria_of(const std::vector<Grouping>& groupings,
                                       const ColorPoints& colors, std::uint64_t seed);

struct GroupSuggestion {
  std::size_t place = 0;  // in the list
  std::string reason;     // a sentence
};

/// For mixtures the smallest BIC, unless it is still falling at the end of the range, as it is for
/// most pictures; else, and for k-means, the best silhouette. The reason names the other signs.
GroupSuggestion suggest(const std::vector<GroupCriteria>& criteria);

/// The curves of a figure.
std::vector<CriterionCurve> criterion_curves(const std::vector<GroupCriteria>& criteria);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CLUSTER_GROUP_CHOICE_H_
