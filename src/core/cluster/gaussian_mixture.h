// Gaussian mixtures: groups as overlapping bells, each with its weight, mean and covariance.
#ifndef CHALCEDONY_CORE_CLUSTER_GAUSSIAN_MIXTURE_H_
#define CHALCEDONY_CORE_CLUSTER_GAUSSIAN_MIXTURE_H_

#include <Eigen/Core>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/cluster/drawn_points.h"
#include "core/cluster/k_means.h"
#include "core/cluster/points.h"

namespace chalcedony {

/// What the covariances of the components may be.
enum class MixtureShape {
  kOwn,     // each its own
  kAxes,    // each its own, along the axes of the features
  kRound,   // each its own, the same in every direction
  kShared,  // one for all
};

struct Component {
  double weight = 0;  // share of the pixels, 0-1
  Eigen::VectorXd mean;
  Eigen::MatrixXd covariance;  // as estimated; see MixtureOptions::smallest_spread
};

struct MixtureOptions {
  MixtureShape shape = MixtureShape::kOwn;
  unsigned first_iterations = 15;  // from every start; the best of them goes on
  unsigned most_iterations = 300;
  double gain = 1e-4;  // ends when an iteration adds less to the mean log-likelihood of a pixel
  /// Of each feature; its square is added to the variances, so that a flat color has a density.
  Eigen::VectorXd smallest_spread;
};

/// One start and where it came to.
struct MixtureRun {
  double log_likelihood = 0;  // of the points that took part, scaled up to all
  unsigned iterations = 0;
};

struct GaussianMixture {
  std::vector<Component> components;
  double log_likelihood = 0;  // of all pixels
  double entropy = 0;         // of the memberships, summed over all pixels
  double pixels = 0;          // sum of the weights
  std::size_t parameters = 0;
  unsigned iterations = 0;
  bool settled = false;   // ended because nothing was gained any more
  std::size_t faded = 0;  // components taken out: fewer pixels than features + 2
  std::size_t best = 0;   // the run it is from
  std::vector<MixtureRun> runs;

  /// Criteria to choose the number of components by; lower is better.
  ///
  /// Source    Akaike (1974); Schwarz (1978); Biernacki, Celeux and Govaert (2000)
  double aic() const { return 2 * static_cast<double>(parameters) - 2 * log_likelihood; }
  double bic() const;
  double icl() const { return bic() + 2 * entropy; }
};

/// Fits a mixture by expectation-maximisation, from the groups of each of `starts`: some
/// iterations from every start, then the best goes on until it settles. Only drawn
/// points take part until then; from there it goes on with all of them until it settles again.
///
/// Errors    InputError when no component is left
/// Source    Dempster, Laird and Rubin (1977); short runs as Biernacki, Celeux and Govaert (2003)
GaussianMixture fit_mixture(const DrawnPoints& points, const std::vector<Centers>& starts,
                            const MixtureOptions& options);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_GAUSSIAN_MIXTURE_H_
