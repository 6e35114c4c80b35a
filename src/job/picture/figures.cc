#include "job/picture/figures.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostInputsWithFigures = 20;

}  // namespace

FigureFormats figure_formats(const SharedOptions& options, const Context& context) {
  FigureFormats formats;
  if (options.output.empty()) return formats;
  formats.of_each = options.figures.value_or(FigureFormat::kPng);
  if (!options.shard) formats.of_all = formats.of_each;
  if (!options.figures && options.inputs.size() > kMostInputsWithFigures) {
    context.warn(
        "more than 20 inputs, so no figures of each are drawn; ask for them with --figures png");
    formats.of_each = FigureFormat::kNone;
  }
  return formats;
}

FigureFormats figure_formats(const Results& results, const SharedOptions& options,
                             const Context& context) {
  return results.wants("figure") ? figure_formats(options, context) : FigureFormats();
}

void draw_figures(Plot& plot, const Context& context) {
  const auto problem = plot.draw();
  const bool stopped = context.stop && context.stop->load();
  if (problem && !stopped) context.warn(*problem);
}

void end_with_report(Json& summary, FigureFormat of_all, const ReportOfAll& report,
                     Results& results, const Context& context) {
  Plot plot(of_all);
  report(summary, plot, results);
  draw_figures(plot, context);
  results.report(summary);
}

}  // namespace chalcedony
