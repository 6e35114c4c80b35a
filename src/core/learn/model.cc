#include "core/learn/model.h"

namespace chalcedony {

Eigen::VectorXd smallest_spread(const std::vector<Channel>& features) {
  constexpr double kPart = 1e-4, kStoredRange = 255;
  Eigen::VectorXd spread(static_cast<Eigen::Index>(features.size()));
  for (std::size_t f = 0; f < features.size(); ++f) {
    double range = kStoredRange;
    if (!features[f].is_stored()) {
      const ChannelInfo& info = features[f].space->channels[features[f].index];
      range = info.high - info.low;
    }
    spread[static_cast<Eigen::Index>(f)] = kPart * range;
  }
  return spread;
}

}  // namespace chalcedony
