#include "core/select/likeness.h"

#include <Eigen/LU>
#include <algorithm>
#include <boost/math/special_functions/gamma.hpp>
#include <cmath>

#include "core/degrees.h"

namespace chalcedony {
namespace {

constexpr double kLeastWidth = 0.02;     // of the usual range; samples of one color have one too
constexpr double kSmallestGain = 0.001;  // of a share, for an end to be moved
constexpr int kCuts = 100;               // places each end may move to

double usual_range(const Channel& channel) {
  if (channel.is_stored()) return 255;
  const ChannelInfo& info = channel.info();
  return info.high - info.low;
}

/// Multiples of a step, without what rounding leaves in the last digits.
double rounded(double value, double step, double (*round)(double)) {
  return std::round(round(value / step) * step * 1e9) / 1e9;
}

double mean_hue(const std::vector<float>& hues) {
  double sine = 0, cosine = 0;
  for (const float hue : hues) {
    if (std::isnan(hue)) continue;
    const double angle = radians(static_cast<double>(hue));
    sine += std::sin(angle);
    cosine += std::cos(angle);
  }
  return direction(sine, cosine);
}

/// Values on a line: hues are turned so that `middle` lies at 180.
std::vector<double> straightened(const std::vector<float>& values, bool is_hue, double middle) {
  std::vector<double> out;
  for (const float value : values)
    if (!std::isnan(value))
      out.push_back(is_hue ? on_circle(static_cast<double>(value) + (180 - middle))
                           : static_cast<double>(value));
  return out;
}

/// The value that a share of the sorted values does not exceed.
double quantile(const std::vector<double>& sorted, double share) {
  const double at = share * static_cast<double>(sorted.size() - 1);
  const auto below = static_cast<std::size_t>(at);
  const std::size_t above = std::min(below + 1, sorted.size() - 1);
  return sorted[below] + (at - static_cast<double>(below)) * (sorted[above] - sorted[below]);
}

std::size_t count_of(const SampleValues& samples) {
  return samples.empty() ? 0 : samples[0].size();
}

/// Where an end may move to: even steps over the width of the range.
double cut_of(const ValueRange& range, bool is_hue, double step, int cut, bool low_end) {
  double width = range.high - range.low;
  if (is_hue && width < 0) width += 360;
  const double by = width * cut / (kCuts + 1);
  const double value = low_end ? range.low + by : range.high - by;
  return rounded(is_hue ? on_circle(value) : value, step, std::round);
}

}  // namespace

double end_step(const Channel& channel) {
  return std::pow(10.0, std::floor(std::log10(usual_range(channel) / 2000) + 0.5));
}

double least_width(const Channel& channel) { return kLeastWidth * usual_range(channel); }

std::vector<ValueRange> middle_ranges(const std::vector<Channel>& channels,
                                      const SampleValues& like, double coverage) {
  const double tail = (1 - coverage / 100) / 2;
  std::vector<ValueRange> ranges;
  for (std::size_t c = 0; c < channels.size(); ++c) {
    const bool is_hue = channels[c].is_hue();
    const double middle = is_hue ? mean_hue(like[c]) : 0;
    std::vector<double> values = straightened(like[c], is_hue, middle);
    std::sort(values.begin(), values.end());
    const double step = end_step(channels[c]);
    ValueRange range{quantile(values, tail), quantile(values, 1 - tail)};
    const double missing = least_width(channels[c]) - (range.high - range.low);
    if (missing > 0) range = {range.low - missing / 2, range.high + missing / 2};
    if (is_hue)
      range = {on_circle(range.low + (middle - 180)), on_circle(range.high + (middle - 180))};
    ranges.push_back({rounded(range.low, step, std::floor), rounded(range.high, step, std::ceil)});
  }
  return ranges;
}

double share_within(const std::vector<ValueRange>& ranges, const SampleValues& samples) {
  const std::size_t n = count_of(samples);
  std::size_t inside = 0;
  for (std::size_t i = 0; i < n; ++i) {
    bool all = true;
    for (std::size_t c = 0; c < ranges.size() && all; ++c)
      all = ranges[c].holds(static_cast<double>(samples[c][i]));
    inside += all;
  }
  return n == 0 ? 0 : static_cast<double>(inside) / static_cast<double>(n);
}

void narrow_ranges(const std::vector<Channel>& channels, const SampleValues& like,
                   const SampleValues& unlike, std::vector<ValueRange>& ranges) {
  double best = share_within(ranges, like) - share_within(ranges, unlike);
  while (true) {
    const std::vector<ValueRange> start = ranges;
    const double before = best;
    for (std::size_t c = 0; c < ranges.size(); ++c)
      for (const bool low_end : {true, false})
        for (int cut = 1; cut <= kCuts; ++cut) {
          std::vector<ValueRange> tried = start;
          (low_end ? tried[c].low : tried[c].high) =
              cut_of(start[c], channels[c].is_hue(), end_step(channels[c]), cut, low_end);
          const double gain = share_within(tried, like) - share_within(tried, unlike);
          if (gain <= best || gain < before + kSmallestGain) continue;
          best = gain;
          ranges = tried;
        }
    if (best == before) return;
  }
}

LikeEllipsoid gaussian_likeness(const std::vector<Channel>& channels, const SampleValues& like,
                                double coverage) {
  const double n = static_cast<double>(count_of(like));
  LikeEllipsoid out;
  Eigen::Matrix3d covariance = Eigen::Matrix3d::Zero();
  for (int c = 0; c < 3; ++c) {
    double sum = 0;
    for (const float value : like[static_cast<std::size_t>(c)]) sum += static_cast<double>(value);
    out.mean[c] = sum / n;
  }
  for (std::size_t i = 0; i < count_of(like); ++i) {
    Eigen::Vector3d step;
    for (int c = 0; c < 3; ++c)
      step[c] = static_cast<double>(like[static_cast<std::size_t>(c)][i]) - out.mean[c];
    covariance += step * step.transpose() / n;
  }
  for (int c = 0; c < 3; ++c) {
    const double least = usual_range(channels[static_cast<std::size_t>(c)]) / 1000;
    covariance(c, c) += least * least;
  }
  out.inverse_covariance = covariance.inverse();
  // The squared distance of three Gaussian numbers is chi-squared with three degrees of freedom.
  out.limit = 2 * boost::math::gamma_p_inv(1.5, coverage / 100);
  return out;
}

double share_within(const LikeEllipsoid& ellipsoid, const SampleValues& samples) {
  const std::size_t n = count_of(samples);
  std::size_t inside = 0;
  for (std::size_t i = 0; i < n; ++i) {
    Eigen::Vector3d step;
    for (int c = 0; c < 3; ++c)
      step[c] = static_cast<double>(samples[static_cast<std::size_t>(c)][i]) - ellipsoid.mean[c];
    inside += step.dot(ellipsoid.inverse_covariance * step) <= ellipsoid.limit;
  }
  return n == 0 ? 0 : static_cast<double>(inside) / static_cast<double>(n);
}

}  // namespace chalcedony
