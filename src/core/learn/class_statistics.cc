#include "core/learn/class_statistics.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace chalcedony {

ClassSums::ClassSums(std::size_t features)
    : features_(features),
      sum_(features),
      smallest_(features, std::numeric_limits<double>::infinity()),
      largest_(features, -std::numeric_limits<double>::infinity()),
      products_(features * (features + 1) / 2) {}

void ClassSums::add(const double* features, double pixels) {
  pixels_ += pixels;
  std::size_t product = 0;
  for (std::size_t i = 0; i < features_; ++i) {
    sum_[i] += pixels * features[i];
    smallest_[i] = std::min(smallest_[i], features[i]);
    largest_[i] = std::max(largest_[i], features[i]);
    for (std::size_t j = i; j < features_; ++j)
      products_[product++] += pixels * features[i] * features[j];
  }
}

void ClassSums::add(const PointMoments& points) {
  pixels_ += points.weight;
  for (std::size_t i = 0; i < features_; ++i) {
    sum_[i] += points.sum[i];
    smallest_[i] = std::min(smallest_[i], static_cast<double>(points.smallest[i]));
    largest_[i] = std::max(largest_[i], static_cast<double>(points.largest[i]));
  }
  for (std::size_t i = 0; i < products_.size(); ++i) products_[i] += points.products[i];
}

ClassSums& ClassSums::operator+=(const ClassSums& later) {
  pixels_ += later.pixels_;
  for (std::size_t i = 0; i < features_; ++i) {
    sum_[i] += later.sum_[i];
    smallest_[i] = std::min(smallest_[i], later.smallest_[i]);
    largest_[i] = std::max(largest_[i], later.largest_[i]);
  }
  for (std::size_t i = 0; i < products_.size(); ++i) products_[i] += later.products_[i];
  return *this;
}

ClassStatistics ClassSums::statistics() const {
  const auto d = static_cast<Eigen::Index>(features_);
  const double n = pixels_;
  ClassStatistics out;
  out.count = static_cast<std::uint64_t>(std::llround(n));
  out.mean = Eigen::Map<const Eigen::VectorXd>(sum_.data(), d) / n;
  out.smallest = Eigen::Map<const Eigen::VectorXd>(smallest_.data(), d);
  out.largest = Eigen::Map<const Eigen::VectorXd>(largest_.data(), d);
  out.covariance = Eigen::MatrixXd::Zero(d, d);
  if (n < 2) return out;
  std::size_t product = 0;
  for (Eigen::Index i = 0; i < d; ++i)
    for (Eigen::Index j = i; j < d; ++j) {
      double value = (products_[product++] - n * out.mean[i] * out.mean[j]) / (n - 1);
      if (i == j) value = std::max(value, 0.0);
      out.covariance(i, j) = out.covariance(j, i) = value;
    }
  return out;
}

}  // namespace chalcedony
