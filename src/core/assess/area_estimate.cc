#include "core/assess/area_estimate.h"

#include <algorithm>
#include <cmath>

#include "core/stats/normal_distribution.h"

namespace chalcedony {
namespace {

/// One class of the map: its share of the area and what its sample says.
struct Stratum {
  double weight = 0;
  double n = 0;
  std::vector<double> share;  // of its sample, by reference class

  /// Variance of the estimated share of one reference class; NaN for a single sample.
  double variance(std::size_t c) const { return n == 0 ? 0 : share[c] * (1 - share[c]) / (n - 1); }
};

std::vector<Stratum> strata_of(const ErrorMatrix& sample, const std::vector<double>& shares) {
  std::vector<Stratum> strata;
  for (std::size_t r = 0; r < sample.rows(); ++r) {
    Stratum s{shares[r], static_cast<double>(sample.row_total(r)), {}};
    for (std::size_t c = 0; c < sample.columns(); ++c)
      s.share.push_back(s.n > 0 ? static_cast<double>(sample.at(r, c)) / s.n : 0);
    strata.push_back(s);
  }
  return strata;
}

Estimate estimate(double value, double variance) {
  if (!std::isfinite(variance)) return {value, std::nullopt};
  return {value, std::sqrt(std::max(0.0, variance))};
}

/// Share of the area that is class c by reference: equations 9 and 10.
Estimate area_of(const std::vector<Stratum>& strata, std::size_t c) {
  double area = 0, variance = 0;
  for (const Stratum& s : strata) {
    if (s.weight == 0) continue;
    area += s.weight * s.share[c];
    variance += s.weight * s.weight * s.variance(c);
  }
  return estimate(area, variance);
}

/// Share of the area of class c that the map has right: equation 7, divided through by the area.
std::optional<Estimate> producers_of(const std::vector<Stratum>& strata, std::size_t c) {
  const double area = area_of(strata, c).value;
  if (!(area > 0)) return std::nullopt;
  const Stratum* own = c < strata.size() ? &strata[c] : nullptr;
  const double found = own ? own->weight * own->share[c] / area : 0;
  double variance = 0;
  for (const Stratum& s : strata) {
    if (s.weight == 0) continue;
    const double part = &s == own ? 1 - found : found;
    variance += s.weight * s.weight * part * part * s.variance(c);
  }
  return estimate(found, variance / (area * area));
}

}  // namespace

std::optional<AreaAdjusted> area_adjusted(const ErrorMatrix& sample,
                                          const std::vector<double>& mapped_shares) {
  const std::vector<Stratum> strata = strata_of(sample, mapped_shares);
  for (const Stratum& s : strata)
    if (s.weight > 0 && s.n == 0) return std::nullopt;
  AreaAdjusted out;
  double overall = 0, overall_variance = 0;
  for (std::size_t c = 0; c < sample.columns(); ++c) {
    AdjustedClass& one = out.classes.emplace_back();
    one.area = area_of(strata, c);
    one.producers = producers_of(strata, c);
    if (c >= strata.size()) continue;
    const Stratum& s = strata[c];
    if (s.n > 0) one.users = estimate(s.share[c], s.variance(c));
    if (s.weight == 0) continue;
    overall += s.weight * s.share[c];
    overall_variance += s.weight * s.weight * s.variance(c);
  }
  out.overall = estimate(overall, overall_variance);
  return out;
}

std::uint64_t stratified_sample_size(const ErrorMatrix& sample,
                                     const std::vector<double>& mapped_shares, double half_width,
                                     double level) {
  double spread = 0;
  const std::vector<Stratum> strata = strata_of(sample, mapped_shares);
  for (std::size_t r = 0; r < strata.size(); ++r) {
    const double right = r < sample.columns() ? strata[r].share[r] : 0;
    spread += strata[r].weight * std::sqrt(right * (1 - right));
  }
  const double n = std::pow(spread * normal_z(level) / half_width, 2);
  return std::max<std::uint64_t>(1, static_cast<std::uint64_t>(std::ceil(n - 1e-9)));
}

}  // namespace chalcedony
