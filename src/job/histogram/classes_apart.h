// How well channels tell classes apart, by their counts.
#ifndef CHALCEDONY_JOB_HISTOGRAM_CLASSES_APART_H_
#define CHALCEDONY_JOB_HISTOGRAM_CLASSES_APART_H_

#include <cstddef>
#include <vector>

#include "core/stats/class_histogram.h"
#include "job/histogram/class_counts.h"

namespace chalcedony {

/// Two classes, by their places, and what they have in common.
struct ClassPair {
  std::size_t first = 0, second = 0;
  double overlap = 0;  // 0-1
};

/// What is found of a channel.
struct ChannelFindings {
  const CountedChannel* counted = nullptr;  // of the counts
  std::vector<ClassPair> pairs;             // of classes with pixels; at least one
  std::vector<ClassInterval> intervals;     // of each class; of one without pixels nothing

  const Channel& channel() const { return counted->channel; }
  const ClassHistogram& histogram() const { return counted->histogram; }
  double mean_overlap() const;
  const ClassPair& most_alike() const;
};

/// The channels in the order of how well they tell the classes apart: by mean overlap.
///
/// Range     two classes with pixels at least; the counts must outlive what is found
std::vector<ChannelFindings> channels_apart(const ClassCounts& counts);

/// The channel whose interval takes class c best.
const ChannelFindings& best_channel(const std::vector<ChannelFindings>& findings, std::size_t c);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_CLASSES_APART_H_
