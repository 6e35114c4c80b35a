// Groups of colors, found or taken from a model: one number of them, or every one of a range.
#ifndef CHALCEDONY_JOB_CLUSTER_GROUP_SEARCH_H_
#define CHALCEDONY_JOB_CLUSTER_GROUP_SEARCH_H_

#include <cstddef>
#include <optional>
#include <vector>

#include "core/learn/model.h"
#include "job/cluster/cluster.h"
#include "job/cluster/color_points.h"
#include "job/cluster/group_choice.h"
#include "job/cluster/grouping.h"
#include "job/run/context.h"

namespace chalcedony {

struct FoundGroups {
  std::vector<Grouping> groupings;            // for each number of groups that was tried
  std::size_t chosen = 0;                     // of them
  std::optional<std::size_t> most_k;          // where a range has more groups than there are colors
  std::vector<GroupCriteria> criteria;        // of each, when there are several
  std::optional<GroupSuggestion> suggestion;  // then too

  Grouping& choice() { return groupings[chosen]; }
  const Grouping& choice() const { return groupings[chosen]; }
};

/// Divides the features of all colors as asked for, and finds the groups. Every number of a range
/// is also started from the groups of the number before it. Warns of mixtures that did not settle,
/// and of components that faded away.
///
/// Errors    InputError when there are more groups than colors, even of the first number
FoundGroups find_groups(const ClusterOptions& options, ColorPoints& colors, const Context& context);

/// The groups of a model, whose divisors the features are divided by.
///
/// Errors    InputError, as grouping_of()
FoundGroups groups_of_model(const Model& model, ColorPoints& colors);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CLUSTER_GROUP_SEARCH_H_
