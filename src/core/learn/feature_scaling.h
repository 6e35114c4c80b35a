// What features are divided by, so that none decides by its unit alone.
#ifndef CHALCEDONY_CORE_LEARN_FEATURE_SCALING_H_
#define CHALCEDONY_CORE_LEARN_FEATURE_SCALING_H_

#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/cluster/points.h"

namespace chalcedony {

/// What features are divided by before distances.
enum class FeatureScaling {
  kBySpreadWhenUnitsDiffer,
  kNone,
  kSpread,  // the standard deviation over the points
  kRange,   // largest less smallest
};

/// What is done with these features when the choice is left to us.
FeatureScaling settled(FeatureScaling scaling, const std::vector<Channel>& features);

/// As models call it: "none", "spread", "range".
std::string name_of(FeatureScaling scaling);

/// The divisor of each feature over all points, by their weights; 1 where all are the same. Empty
/// for no scaling.
std::vector<double> divisors_of(const Points& points, FeatureScaling scaling);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_FEATURE_SCALING_H_
