// Mixtures: the exponential they rest on, made-up mixtures found again, and flat colors.
#include "core/cluster/gaussian_mixture.h"

#include <Eigen/LU>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

#include "core/error.h"
#include "tests/support/point_cloud.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

struct Bell {
  Eigen::Vector3d mean;
  Eigen::Matrix3d root;
  double share;
};

/// Three bells, any two at least four standard deviations apart along the line between them.
std::vector<Bell> bells_of(std::mt19937& random) {
  std::normal_distribution<double> normal;
  std::vector<Bell> bells(3);
  const auto random_vector = [&] {
    return Eigen::Vector3d(normal(random), normal(random), normal(random));
  };
  while (true) {
    for (Bell& bell : bells) {
      bell.mean = Eigen::Vector3d(60, 60, 60) + 25 * random_vector();
      for (int i = 0; i < 9; ++i) bell.root(i / 3, i % 3) = 2 * normal(random);
    }
    bells[0].share = 0.5;
    bells[1].share = 0.3;
    bells[2].share = 0.2;
    bool apart = true;
    for (int a = 0; a < 3; ++a)
      for (int b = 0; b < a; ++b) {
        const Eigen::Vector3d way = bells[a].mean - bells[b].mean;
        const Eigen::Vector3d along = way.normalized();
        const double deviations =
            (bells[a].root.transpose() * along).norm() + (bells[b].root.transpose() * along).norm();
        apart &= way.norm() >= 4 * deviations;
      }
    if (apart) return bells;
  }
}

PointCloud cloud_of(const std::vector<Bell>& bells, std::size_t size, std::mt19937& random) {
  std::normal_distribution<double> normal;
  std::uniform_real_distribution<double> uniform;
  PointCloud cloud{std::vector<std::vector<float>>(3), {}};
  for (std::size_t i = 0; i < size; ++i) {
    const double draw = uniform(random);
    const Bell& bell = draw < 0.5 ? bells[0] : draw < 0.8 ? bells[1] : bells[2];
    const Eigen::Vector3d x =
        bell.mean + bell.root * Eigen::Vector3d(normal(random), normal(random), normal(random));
    for (int f = 0; f < 3; ++f)
      cloud.features[static_cast<std::size_t>(f)].push_back(static_cast<float>(x[f]));
    cloud.weights.push_back(1);
  }
  return cloud;
}

GaussianMixture fitted(const Points& points, std::size_t k,
                       MixtureShape shape = MixtureShape::kOwn) {
  std::vector<Centers> starts;
  KMeansOptions groups;
  groups.k = k;
  for (std::uint64_t seed = 1; seed <= 4; ++seed) {
    groups.seed = seed;
    starts.push_back(rough_groups(DrawnPoints(points, 1), groups));
  }
  MixtureOptions options;
  options.shape = shape;
  options.smallest_spread =
      Eigen::VectorXd::Constant(static_cast<Eigen::Index>(points.dimensions()), 0.01);
  return fit_mixture(DrawnPoints(points, 1), starts, options);
}

/// The log-likelihood by its formula, point by point.
double plain_log_likelihood(const Points& points, const GaussianMixture& mixture, double floor) {
  double sum = 0;
  const auto d = static_cast<Eigen::Index>(points.dimensions());
  for (std::size_t i = 0; i < points.size; ++i) {
    double density = 0;
    for (const Component& c : mixture.components) {
      const Eigen::MatrixXd covariance =
          c.covariance + floor * floor * Eigen::MatrixXd::Identity(d, d);
      Eigen::VectorXd x(d);
      for (Eigen::Index f = 0; f < d; ++f)
        x[f] = static_cast<double>(points.features[static_cast<std::size_t>(f)][i]) - c.mean[f];
      density += c.weight * std::exp(-0.5 * x.dot(covariance.inverse() * x)) /
                 std::sqrt(std::pow(2 * std::numbers::pi, static_cast<double>(d)) *
                           covariance.determinant());
    }
    sum += points.weights[i] * std::log(density);
  }
  return sum;
}

}  // namespace

TEST_CASE("made-up mixtures are found again, and BIC counts their components", "[core][cluster]") {
  int right = 0;
  for (unsigned seed = 1; seed <= 10; ++seed) {
    INFO("seed " << seed);
    std::mt19937 random(seed);
    const std::vector<Bell> bells = bells_of(random);
    const PointCloud cloud = cloud_of(bells, 20000, random);
    const Points points = cloud.view();
    std::vector<GaussianMixture> mixtures;
    for (std::size_t k = 1; k <= 4; ++k) mixtures.push_back(fitted(points, k));
    std::size_t best = 0;
    for (std::size_t i = 1; i < mixtures.size(); ++i)
      if (mixtures[i].bic() < mixtures[best].bic()) best = i;
    right += best == 2;

    const GaussianMixture& three = mixtures[2];
    CHECK(three.settled);
    REQUIRE(three.components.size() == 3);
    for (const Bell& bell : bells) {
      const Component* nearest = &three.components[0];
      for (const Component& c : three.components)
        if ((c.mean - bell.mean).norm() < (nearest->mean - bell.mean).norm()) nearest = &c;
      CHECK((nearest->mean - bell.mean).norm() <= 0.02 * bell.mean.norm());
      CHECK(nearest->weight == Approx(bell.share).margin(0.02));
    }
    if (seed == 1)
      CHECK(three.log_likelihood ==
            Approx(plain_log_likelihood(points, three, 0.01)).epsilon(1e-12));
  }
  CHECK(right >= 9);
}

TEST_CASE("one component is the sample's own Gaussian, in each shape", "[core][cluster]") {
  std::mt19937 random(4);
  const PointCloud cloud = cloud_of(bells_of(random), 3000, random);
  const Points points = cloud.view();
  Eigen::Vector3d mean = Eigen::Vector3d::Zero();
  Eigen::Matrix3d products = Eigen::Matrix3d::Zero();
  for (std::size_t i = 0; i < points.size; ++i) {
    const Eigen::Vector3d x(static_cast<double>(points.features[0][i]),
                            static_cast<double>(points.features[1][i]),
                            static_cast<double>(points.features[2][i]));
    mean += x / 3000;
    products += x * x.transpose() / 3000;
  }
  const Eigen::Matrix3d covariance = products - mean * mean.transpose();
  const GaussianMixture own = fitted(points, 1), axes = fitted(points, 1, MixtureShape::kAxes),
                        round = fitted(points, 1, MixtureShape::kRound);
  CHECK((own.components[0].mean - mean).norm() < 1e-6);
  CHECK((own.components[0].covariance - covariance).norm() < 1e-5 * covariance.norm());
  CHECK(axes.components[0].covariance(0, 1) == 0);
  CHECK(axes.components[0].covariance(2, 2) == Approx(covariance(2, 2)));
  CHECK(round.components[0].covariance(1, 1) == Approx(covariance.trace() / 3));
  CHECK(own.parameters == 9);
  CHECK(axes.parameters == 6);
  CHECK(round.parameters == 4);
  // -2 ln L + p ln n, and all memberships certain.
  CHECK(own.bic() == Approx(9 * std::log(3000.0) - 2 * own.log_likelihood));
  CHECK(own.icl() == Approx(own.bic()));
  CHECK(own.aic() == Approx(18 - 2 * own.log_likelihood));

  const GaussianMixture shared = fitted(points, 3, MixtureShape::kShared);
  CHECK(shared.parameters == 9 + 6 + 2);
  CHECK(shared.components[0].covariance == shared.components[2].covariance);
  CHECK(fitted(points, 3).log_likelihood > shared.log_likelihood);
  CHECK(shared.entropy >= 0);
}

TEST_CASE("flat colors neither blow up nor take the rest with them", "[core][cluster]") {
  PointCloud cloud{std::vector<std::vector<float>>(2), {}};
  for (int i = 0; i < 400; ++i) {
    cloud.features[0].push_back(i < 200 ? 10.0f : 200.0f);
    cloud.features[1].push_back(i < 200 ? 50.0f : 60.0f);
    cloud.weights.push_back(1);
  }
  const GaussianMixture two = fitted(cloud.view(), 2);
  REQUIRE(two.components.size() == 2);
  CHECK(std::isfinite(two.log_likelihood));
  CHECK(two.components[0].weight == Approx(0.5));
  CHECK(two.components[0].covariance.norm() < 1e-9);
  CHECK(two.entropy == Approx(0).margin(1e-9));
}

TEST_CASE("a component with too few pixels for its covariance fades away", "[core][cluster]") {
  PointCloud cloud{{{0, 1, 2, 3, 4, 5, 90}}, {10, 10, 10, 10, 10, 10, 1}};
  MixtureOptions options;
  options.smallest_spread = Eigen::VectorXd::Constant(1, 0.01);
  const GaussianMixture mixture = fit_mixture(DrawnPoints(cloud.view(), 1), {{2.5, 90}}, options);
  CHECK(mixture.components.size() == 1);
  CHECK(mixture.faded == 1);
  const PointCloud one{{{5}}, {1}};
  CHECK_THROWS_AS(fit_mixture(DrawnPoints(one.view(), 1), {{5}}, options), InputError);
}
