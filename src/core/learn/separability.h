// How far apart two classes are, judged by their Gaussians.
#ifndef CHALCEDONY_CORE_LEARN_SEPARABILITY_H_
#define CHALCEDONY_CORE_LEARN_SEPARABILITY_H_

#include <optional>

#include "core/learn/class_statistics.h"

namespace chalcedony {

/// Both distances run from 0 (the same distribution) to 2 (fully apart).
struct Separability {
  double jeffries_matusita = 0;
  double transformed_divergence = 0;
  /// Upper bound on the share of pixels confused between the two, equally frequent, in percent.
  double confusion_bound = 0;
};

/// `smallest_spread` is added to each feature's standard deviation (in quadrature), so that a flat
/// class has a density; give something far below what matters.
/// Nothing when a class has fewer pixels than features + 2.
///
/// Source    Richards, Remote Sensing Digital Image Analysis (2013), 10.2: B is the Bhattacharyya
///           distance, JM = 2 (1 - exp(-B)); D the divergence, TD = 2 (1 - exp(-D / 8)); the
///           bound is half exp(-B) (Kailath 1967)
std::optional<Separability> separability(const ClassStatistics& a, const ClassStatistics& b,
                                         const Eigen::VectorXd& smallest_spread);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_SEPARABILITY_H_
