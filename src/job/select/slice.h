// `slice`: intervals of one channel, or selections, as classes.
#ifndef CHALCEDONY_JOB_SELECT_SLICE_H_
#define CHALCEDONY_JOB_SELECT_SLICE_H_

#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/color/css_color.h"
#include "core/select/selected_classes.h"
#include "core/select/slices.h"
#include "figure/plot/plot.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

struct SliceOptions {
  SharedOptions shared;
  std::vector<SelectedClass> selected;  // these, or of the channel:
  Channel channel;
  std::vector<Slice> slices;  // given ones; else:
  std::size_t quantiles = 0;  // so many, of as many pixels each; of each input its own
};

const std::vector<ResultKind>& slice_results();

Json run_slice(const SliceOptions& options, const Context& context);

/// report_class_shares() of pictures that were sliced, the `inputs` of the summary.
void report_sliced(Json& summary, Plot& plot, Results& results);

/// The cuts of a hue with the first one again at the end, a circle on, unless they go round it
/// already; those of other channels as they are.
std::vector<double> round_the_circle(const Channel& channel, std::vector<double> cuts);

/// The color of a slice as CSS: of hues the one in its middle, of other channels the one given.
std::string slice_color(const Channel& channel, double low, double high, const Color& otherwise);

/// Slices between ends that follow each other, named by their values, in colors that say where on
/// the channel they lie. The ends of a hue may go on past 360.
std::vector<Slice> slices_between(const Channel& channel, const std::vector<double>& ends);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SELECT_SLICE_H_
