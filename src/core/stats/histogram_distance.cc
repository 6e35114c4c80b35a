#include "core/stats/histogram_distance.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/stats/transport.h"

namespace chalcedony {
namespace {

double sum_of(const Bins& bins) { return std::accumulate(bins.begin(), bins.end(), 0.0); }

/// What a has more than b up to each bin.
Bins cumulative_differences(const Bins& a, const Bins& b) {
  const double all_a = sum_of(a), all_b = sum_of(b);
  Bins out(a.size());
  double behind = 0;
  for (std::size_t i = 0; i < a.size(); ++i) out[i] = behind += a[i] / all_a - b[i] / all_b;
  return out;
}

/// share * log2(share / middle), 0 for no share.
double surprise(double share, double middle) {
  return share > 0 ? share * std::log2(share / middle) : 0;
}

/// Places of a bin on each axis, 0 to 1.
std::vector<double> place_of(std::size_t bin, std::size_t axes, std::size_t side) {
  std::vector<double> place(axes);
  for (std::size_t a = axes; a-- > 0; bin /= side)
    place[a] = (static_cast<double>(bin % side) + 0.5) / static_cast<double>(side);
  return place;
}

/// The bins that hold anything, and where they are.
struct FilledBins {
  Bins shares;
  std::vector<std::vector<double>> places;

  FilledBins(const Bins& bins, std::size_t axes, std::size_t side) {
    for (std::size_t i = 0; i < bins.size(); ++i) {
      if (bins[i] <= 0) continue;
      shares.push_back(bins[i]);
      places.push_back(place_of(i, axes, side));
    }
  }
};

}  // namespace

double overlap_distance(const Bins& a, const Bins& b) {
  const double all_a = sum_of(a), all_b = sum_of(b);
  double common = 0;
  for (std::size_t i = 0; i < a.size(); ++i) common += std::min(a[i] / all_a, b[i] / all_b);
  return std::max(0.0, 1 - common);
}

double jensen_shannon_distance(const Bins& a, const Bins& b) {
  const double all_a = sum_of(a), all_b = sum_of(b);
  double divergence = 0;
  for (std::size_t i = 0; i < a.size(); ++i) {
    const double p = a[i] / all_a, q = b[i] / all_b, middle = (p + q) / 2;
    divergence += (surprise(p, middle) + surprise(q, middle)) / 2;
  }
  return std::sqrt(std::max(0.0, divergence));
}

double hellinger_distance(const Bins& a, const Bins& b) {
  const double all_a = sum_of(a), all_b = sum_of(b);
  double coefficient = 0;
  for (std::size_t i = 0; i < a.size(); ++i) coefficient += std::sqrt(a[i] / all_a * b[i] / all_b);
  return std::sqrt(std::max(0.0, 1 - coefficient));
}

double transport_on_line(const Bins& a, const Bins& b) {
  double moved = 0;
  for (const double difference : cumulative_differences(a, b)) moved += std::abs(difference);
  return moved;
}

double transport_on_circle(const Bins& a, const Bins& b) {
  Bins differences = cumulative_differences(a, b);
  const auto middle = differences.begin() + static_cast<std::ptrdiff_t>(differences.size() / 2);
  std::nth_element(differences.begin(), middle, differences.end());
  const double median = *middle;
  double moved = 0;
  for (const double difference : differences) moved += std::abs(difference - median);
  return moved;
}

double transport_in_cube(const Bins& a, const Bins& b, std::size_t side,
                         const std::vector<bool>& circular) {
  const FilledBins from(a, circular.size(), side), to(b, circular.size(), side);
  std::vector<double> costs;
  for (const auto& p : from.places)
    for (const auto& q : to.places) {
      double square = 0;
      for (std::size_t c = 0; c < circular.size(); ++c) {
        const double step = std::abs(p[c] - q[c]);
        const double shorter = circular[c] ? std::min(step, 1 - step) : step;
        square += shorter * shorter;
      }
      costs.push_back(std::sqrt(square));
    }
  return cheapest_transport(from.shares, to.shares, costs).cost;
}

}  // namespace chalcedony
