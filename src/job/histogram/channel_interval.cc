#include "job/histogram/channel_interval.h"

#include <cmath>

#include "io/text/number_text.h"

namespace chalcedony {
namespace {

/// Bin edges are quotients; ten digits hide what rounding left in them.
double rounded_edge(double edge) { return std::round(edge * 1e7) / 1e7; }

}  // namespace

std::string ChannelInterval::text() const {
  return channel.name() + " in " + number_text(low) + ".." + number_text(high);
}

ChannelInterval interval_of(const Channel& channel, const Binning& binning, const BinRange& range,
                            bool codes) {
  ChannelInterval out{channel, rounded_edge(binning.edge(range.first)), 0,
                      range.count >= binning.bins()};
  std::size_t end = range.first + range.count;
  if (end > binning.bins()) end -= binning.bins();  // on through 360
  out.high = rounded_edge(binning.edge(codes && binning.holds_codes() ? end - 1 : end));
  return out;
}

}  // namespace chalcedony
