#include "job/histogram/classes_apart.h"

#include <algorithm>

namespace chalcedony {
namespace {

bool is_circle(const Channel& channel, const Binning& binning) {
  return channel.is_hue() && binning.high() - binning.low() >= 360;
}

ChannelFindings findings_of(const CountedChannel& counted) {
  ChannelFindings found{&counted, {}, {}};
  const ClassHistogram& histogram = counted.histogram;
  const bool circle = is_circle(counted.channel, histogram.binning());
  for (std::size_t a = 0; a < histogram.classes(); ++a) {
    const bool has_pixels = histogram.total(a) > 0;
    found.intervals.push_back(has_pixels ? best_interval(histogram, a, circle) : ClassInterval());
    for (std::size_t b = a + 1; b < histogram.classes(); ++b)
      if (has_pixels && histogram.total(b) > 0)
        found.pairs.push_back({a, b, overlap(histogram, a, b)});
  }
  return found;
}

}  // namespace

double ChannelFindings::mean_overlap() const {
  double sum = 0;
  for (const ClassPair& pair : pairs) sum += pair.overlap;
  return sum / static_cast<double>(pairs.size());
}

const ClassPair& ChannelFindings::most_alike() const {
  return *std::max_element(pairs.begin(), pairs.end(), [](const ClassPair& a, const ClassPair& b) {
    return a.overlap < b.overlap;
  });
}

std::vector<ChannelFindings> channels_apart(const ClassCounts& counts) {
  std::vector<ChannelFindings> findings;
  for (const CountedChannel& channel : counts.channels) findings.push_back(findings_of(channel));
  std::stable_sort(findings.begin(), findings.end(),
                   [](const ChannelFindings& a, const ChannelFindings& b) {
                     return a.mean_overlap() < b.mean_overlap();
                   });
  return findings;
}

const ChannelFindings& best_channel(const std::vector<ChannelFindings>& findings, std::size_t c) {
  return *std::max_element(findings.begin(), findings.end(),
                           [&](const ChannelFindings& a, const ChannelFindings& b) {
                             return a.intervals[c].gain() < b.intervals[c].gain();
                           });
}

}  // namespace chalcedony
