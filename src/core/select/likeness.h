// What a selection must hold to take the pixels that are like some samples and leave others.
#ifndef CHALCEDONY_CORE_SELECT_LIKENESS_H_
#define CHALCEDONY_CORE_SELECT_LIKENESS_H_

#include <Eigen/Core>
#include <cstddef>
#include <vector>

#include "core/channel/channel.h"

namespace chalcedony {

/// Values of sample pixels, an array for each channel. A hue may be NaN: none.
using SampleValues = std::vector<std::vector<float>>;

/// Values of a channel, both ends included; of a hue, `low` may be above `high`: through 360.
struct ValueRange {
  double low = 0;
  double high = 0;

  bool holds(double value) const {
    return low <= high ? value >= low && value <= high : value >= low || value <= high;
  }
};

/// What the ends of ranges are multiples of: a round number near a two-thousandth of the channel's
/// usual range.
double end_step(const Channel& channel);

/// How wide ranges are at least, as samples of one color should have one too: a fiftieth of the
/// channel's usual range.
double least_width(const Channel& channel);

/// The middle `coverage` percent of each channel; of a hue those around its mean direction. Ends
/// are rounded outwards to end_step(), and at least least_width() apart.
///
/// Shape     at least one sample with a value of each channel
std::vector<ValueRange> middle_ranges(const std::vector<Channel>& channels,
                                      const SampleValues& like, double coverage);

/// Moves ends inwards, one at a time, as long as that shuts out more of the share of `unlike` than
/// it loses of `like`.
void narrow_ranges(const std::vector<Channel>& channels, const SampleValues& like,
                   const SampleValues& unlike, std::vector<ValueRange>& ranges);

/// The share of samples, 0 to 1, that lie in all ranges; 0 of none.
double share_within(const std::vector<ValueRange>& ranges, const SampleValues& samples);

/// Colors whose squared Mahalanobis distance from the mean is at most `limit`.
struct LikeEllipsoid {
  Eigen::Vector3d mean;
  Eigen::Matrix3d inverse_covariance;
  double limit = 0;
};

/// The ellipsoid of a Gaussian with the mean and covariance of the samples that holds `coverage`
/// percent of it. A thousandth of each channel's usual range is added in quadrature, so that flat
/// samples have one too.
///
/// Shape     three channels, none of them a hue; at least one sample
LikeEllipsoid gaussian_likeness(const std::vector<Channel>& channels, const SampleValues& like,
                                double coverage);

double share_within(const LikeEllipsoid& ellipsoid, const SampleValues& samples);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_SELECT_LIKENESS_H_
