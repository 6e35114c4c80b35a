#include "core/filter/mean.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

#include "core/filter/running_gaussian.h"
#include "core/filter/symmetric_sums.h"

namespace chalcedony {
namespace {

constexpr double kGaussianEnd = 4;  // standard deviations

/// values * weights; where nothing is lent a value does not matter, so it must not be NaN.
Tile weighted(const Tile& values, const Tile& weights) {
  Tile product(values.width(), values.height());
  for (std::size_t y = 0; y < values.height(); ++y)
    for (std::size_t x = 0; x < values.width(); ++x)
      product.row(y)[x] = weights.row(y)[x] > 0 ? values.row(y)[x] * weights.row(y)[x] : 0.0f;
  return product;
}

/// Sums over a box: sums down each column run on from row to row, and are added up across.
void box_sums(const Tile& values, std::size_t reach, Tile& out) {
  const std::size_t side = 2 * reach + 1;
  std::vector<double> columns(values.width());
  for (std::size_t y = 0; y < values.height(); ++y) {
    const float* const entering = values.row(y);
    for (std::size_t x = 0; x < values.width(); ++x) columns[x] += double{entering[x]};
    if (y + 1 < side) continue;
    const std::size_t top = y + 1 - side;
    double sum = 0;
    for (std::size_t x = 0; x < side; ++x) sum += columns[x];
    float* const to = out.row(top);
    to[0] = static_cast<float>(sum);
    // Each sum waits for the one before it alone: the difference is known ahead.
    for (std::size_t x = 1; x < out.width(); ++x) {
      sum += columns[x + side - 1] - columns[x - 1];
      to[x] = static_cast<float>(sum);
    }
    const float* const leaving = values.row(top);
    for (std::size_t x = 0; x < values.width(); ++x) columns[x] -= double{leaving[x]};
  }
}

/// Sums over any window: each of its rows is the difference of two sums along the picture's row.
void row_sums(const Tile& values, const Window& window, Tile& out) {
  const std::size_t reach = window.reach();
  std::vector<std::vector<double>> before(window.rows(), std::vector<double>(values.width() + 1));
  std::vector<double> sums(out.width());
  for (std::size_t y = 0; y < values.height(); ++y) {
    std::vector<double>& along = before[y % window.rows()];
    for (std::size_t x = 0; x < values.width(); ++x)
      along[x + 1] = along[x] + double{values.row(y)[x]};
    if (y + 1 < window.rows()) continue;
    const std::size_t top = y + 1 - window.rows();
    std::fill(sums.begin(), sums.end(), 0.0);
    for (std::size_t r = 0; r < window.rows(); ++r) {
      const double* const row = before[(top + r) % window.rows()].data();
      const std::size_t half = window.half_width(r);
      const double *const first = row + reach - half, *const last = row + reach + half + 1;
      for (std::size_t x = 0; x < out.width(); ++x) sums[x] += last[x] - first[x];
    }
    std::transform(sums.begin(), sums.end(), out.row(top),
                   [](double sum) { return static_cast<float>(sum); });
  }
}

void window_sums(const Tile& values, const Window& window, Tile& out) {
  if (window.is_box()) {
    box_sums(values, window.reach(), out);
  } else {
    row_sums(values, window, out);
  }
}

void gaussian_sums(const Tile& values, const std::vector<float>& gaussian, Tile& out) {
  const std::size_t reach = gaussian.size() - 1;
  if (reach > kFarReach) return RunningGaussian(gaussian).sums(values, out);
  Tile across(out.width(), values.height());
  for (std::size_t y = 0; y < values.height(); ++y)
    symmetric_sums(values.row(y) + reach, 1, gaussian, out.width(), across.row(y));
  for (std::size_t y = 0; y < out.height(); ++y)
    symmetric_sums(across.row(y + reach), static_cast<std::ptrdiff_t>(across.width()), gaussian,
                   out.width(), out.row(y));
}

/// out /= lent, NaN where nothing was lent. What rounding leaves of a sum of nothing is nothing.
void divide(Tile& out, const Tile& lent, float least) {
  for (std::size_t y = 0; y < out.height(); ++y)
    for (std::size_t x = 0; x < out.width(); ++x)
      out.row(y)[x] = lent.row(y)[x] > least ? out.row(y)[x] / lent.row(y)[x]
                                             : std::numeric_limits<float>::quiet_NaN();
}

}  // namespace

void window_mean(const Tile& values, const Tile* weights, const Window& window, Tile& out) {
  if (!weights) {
    window_sums(values, window, out);
    const auto pixels = static_cast<float>(window.pixels());
    for (std::size_t y = 0; y < out.height(); ++y)
      for (std::size_t x = 0; x < out.width(); ++x) out.row(y)[x] /= pixels;
    return;
  }
  window_sums(weighted(values, *weights), window, out);
  Tile lent(out.width(), out.height());
  window_sums(*weights, window, lent);
  divide(out, lent, 1e-4f);
}

std::vector<float> gaussian_weights(double standard_deviation) {
  std::vector<double> exact;
  double sum = 0;
  for (double d = 0; d <= std::ceil(kGaussianEnd * standard_deviation); ++d) {
    exact.push_back(std::exp(-d * d / (2 * standard_deviation * standard_deviation)));
    sum += (d > 0 ? 2 : 1) * exact.back();
  }
  std::vector<float> weights;
  for (const double w : exact) weights.push_back(static_cast<float>(w / sum));
  return weights;
}

void gaussian_mean(const Tile& values, const Tile* weights, const std::vector<float>& gaussian,
                   Tile& out) {
  if (!weights) {
    gaussian_sums(values, gaussian, out);
    return;
  }
  gaussian_sums(weighted(values, *weights), gaussian, out);
  Tile lent(out.width(), out.height());
  gaussian_sums(*weights, gaussian, lent);
  divide(out, lent, 1e-6f);
}

}  // namespace chalcedony
