// Whether and how the figures of a run are drawn.
#ifndef CHALCEDONY_JOB_PICTURE_FIGURES_H_
#define CHALCEDONY_JOB_PICTURE_FIGURES_H_

#include <functional>

#include "figure/plot/plot.h"
#include "job/run/context.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Of a run over pictures, the figures of each and those of all of them together.
struct FigureFormats {
  FigureFormat of_each = FigureFormat::kNone;
  FigureFormat of_all = FigureFormat::kNone;
};

/// What the user asked for, else PNG; of more than 20 inputs then only figures of all of them, and
/// the user is told. A shard has no figures of all, which are not put together from parts; without
/// a folder to write to there are none.
FigureFormats figure_formats(const SharedOptions& options, const Context& context);

/// The same, and none where results do not hold `figure`.
FigureFormats figure_formats(const Results& results, const SharedOptions& options,
                             const Context& context);

/// Draws the figures of a plot; what goes wrong is a warning.
void draw_figures(Plot& plot, const Context& context);

/// What a command adds to the summary of all its pictures, and to a plot; that has no format where
/// no figures of all are drawn.
using ReportOfAll = std::function<void(Json& summary, Plot& plot, Results& results)>;

/// Ends a run over pictures, or the gathering of its shards: lets it report on all of them, draws
/// what it added, and lists the files that were written in the summary.
void end_with_report(Json& summary, FigureFormat of_all, const ReportOfAll& report,
                     Results& results, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_FIGURES_H_
