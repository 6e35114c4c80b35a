// `histogram`: channel and joint histograms, as tables and figures.
#ifndef CHALCEDONY_JOB_HISTOGRAM_HISTOGRAM_H_
#define CHALCEDONY_JOB_HISTOGRAM_HISTOGRAM_H_

#include <cstddef>
#include <utility>
#include <vector>

#include "core/channel/channel.h"
#include "figure/histogram_curves.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

struct HistogramOptions {
  SharedOptions shared;
  std::vector<Channel> channels;                   // one histogram each
  bool own_channels = false;                       // those of each picture itself instead
  std::size_t bins = 0;                            // 0: 256
  std::vector<std::pair<Channel, Channel>> joint;  // one joint histogram each
  std::pair<std::size_t, std::size_t> joint_bins;  // 0: by the channels
  std::size_t cube = 0;                            // bins on each side of a cube; 0: none
  const Space* cube_space = &spaces::kOklab;
  bool joint_matrix = false;  // joint counts as matrices too
  CountAxis counts;           // of the channel histograms in the figure
  bool linear_heat = false;   // colors of joint histograms; else logarithmic
  bool disc = false;          // joint histograms of a hue as a disc too
  bool colors = false;        // write the distinct colors
  std::size_t peaks = 0;      // main peaks to find in each histogram
};

const std::vector<ResultKind>& histogram_results();

Json run_histogram(const HistogramOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_HISTOGRAM_H_
