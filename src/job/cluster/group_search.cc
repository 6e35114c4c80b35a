#include "job/cluster/group_search.h"

#include <string>
#include <utility>

#include "core/cluster/drawn_points.h"
#include "core/cluster/gaussian_mixture.h"
#include "core/cluster/k_means.h"
#include "core/cluster/regrouping.h"
#include "core/cluster/starting_centers.h"
#include "core/error.h"

namespace chalcedony {
namespace {

constexpr unsigned kIterationsOfMixtureStarts = 20;

GroupingFrame frame_of(const ClusterOptions& options, const ColorPoints& colors) {
  GroupingFrame frame;
  frame.features = options.features.empty() ? channels_of(spaces::kOklab) : options.features;
  frame.order = options.order;
  frame.colors = options.colors;
  const FeatureScaling scaling = settled(options.scaling, frame.features);
  frame.scaling = name_of(scaling);
  frame.divisors = divisors_of(colors.points(), scaling);
  return frame;
}

/// The groups of one number after the other.
class GroupSearch {
 public:
  GroupSearch(const ClusterOptions& options, const ColorPoints& colors, GroupingFrame frame,
              const Context& context)
      : options_(options),
        colors_(colors),
        frame_(std::move(frame)),
        context_(context),
        points_(colors.points(), options.shared.seed, points_for_groups(options.last_k)) {}

  Grouping next(std::size_t k) {
    return options_.method == ClusterMethod::kMeans ? by_k_means(k) : by_mixture(k);
  }

 private:
  KMeansOptions groups_of(std::size_t k) const {
    KMeansOptions groups = options_.groups;
    groups.k = k;
    groups.seed = options_.shared.seed;
    return groups;
  }

  std::vector<Centers> start_after_before(std::size_t k) const {
    if (!before_) return {};
    return {with_one_more(points_.drawn(), *before_, options_.shared.seed + k)};
  }

  Grouping by_k_means(std::size_t k) {
    KMeans found = k_means(points_, groups_of(k), start_after_before(k));
    before_ = found.centers;
    return grouping_of(std::move(found), colors_, frame_);
  }

  /// By k-means, a few iterations long.
  std::vector<Centers> starts_of_mixture(std::size_t k) const {
    std::vector<Centers> starts(options_.groups.restarts);
    for_each_start(starts.size(), [&](std::size_t r) {
      KMeansOptions start = groups_of(k);
      start.most_iterations = kIterationsOfMixtureStarts;
      start.seed += r;
      starts[r] = rough_groups(points_, start);
    });
    for (Centers& start : start_after_before(k)) starts.push_back(std::move(start));
    return starts;
  }

  Grouping by_mixture(std::size_t k) {
    Model frame;
    frame.features = frame_.features;
    frame.divisors = frame_.divisors;
    MixtureOptions mixture = options_.mixture;
    mixture.smallest_spread = smallest_spread(frame);
    GaussianMixture found = fit_mixture(points_, starts_of_mixture(k), mixture);
    warn_of(found, k);
    before_.emplace();
    for (const Component& c : found.components)
      before_->insert(before_->end(), c.mean.begin(), c.mean.end());
    Grouping grouping = grouping_of(std::move(found), colors_, frame_);
    grouping.k = k;
    return grouping;
  }

  void warn_of(const GaussianMixture& found, std::size_t k) const {
    if (found.faded > 0)
      context_.warn(std::to_string(found.faded) + " of " + std::to_string(k) +
                    " components faded away: they had fewer pixels than a covariance needs");
    if (!found.settled)
      context_.warn("the mixture of " + std::to_string(k) + " did not settle in " +
                    std::to_string(found.iterations) + " iterations");
  }

  const ClusterOptions& options_;
  const ColorPoints& colors_;
  GroupingFrame frame_;
  const Context& context_;
  DrawnPoints points_;
  std::optional<Centers> before_;  // of the number before, one group less
};

}  // namespace

FoundGroups find_groups(const ClusterOptions& options, ColorPoints& colors,
                        const Context& context) {
  const GroupingFrame frame = frame_of(options, colors);
  colors.divide(frame.divisors);
  GroupSearch search(options, colors, frame, context);
  FoundGroups found;
  for (std::size_t k = options.first_k; k <= options.last_k; ++k) {
    try {
      found.groupings.push_back(search.next(k));
    } catch (const InputError&) {
      // More groups than colors: what was found so far is all there is.
      if (k == options.first_k) throw;
      found.most_k = k - 1;
      break;
    }
  }
  if (found.groupings.size() < 2) return found;
  found.criteria = criteria_of(found.groupings, colors, options.shared.seed);
  found.suggestion = suggest(found.criteria);
  found.chosen = found.suggestion->place;
  return found;
}

FoundGroups groups_of_model(const Model& model, ColorPoints& colors) {
  colors.divide(model.divisors);
  FoundGroups found;
  found.groupings.push_back(grouping_of(model, colors));
  return found;
}

}  // namespace chalcedony
