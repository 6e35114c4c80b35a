#include "job/change/changes.h"

#include "core/error.h"
#include "figure/changes_figure.h"
#include "job/change/changed_pictures.h"
#include "job/change/changes_report.h"
#include "job/change/timed_maps.h"
#include "job/picture/figures.h"
#include "job/picture/short_names.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

/// What became of the classes, for the figure of flows.
ChangesFigure flows_figure(const TimedMaps& maps) {
  std::vector<std::filesystem::path> files;
  for (std::size_t map = 0; map < maps.size(); ++map)
    files.push_back(maps.file(map).parent_path() / maps.file(map).stem());
  ChangesFigure figure{"What became of the classes", short_names(files), {}, {}, {}};
  for (std::size_t c = 0; c <= maps.classes(); ++c)
    figure.classes.push_back({maps.name(c), maps.color(c)});
  figure.shares.assign(maps.size(), std::vector<double>(maps.classes() + 1));
  for (const ClassHistory& history : maps.histories())
    for (std::size_t map = 0; map < maps.size(); ++map)
      figure.shares[map][history.classes[map]] += percent(history.pixels, maps.counted());
  for (std::size_t map = 0; map + 1 < maps.size(); ++map) {
    std::vector<ChangesFigure::Flow>& flows = figure.flows.emplace_back();
    for (const ClassFlow& flow : flows_between(maps.histories(), map, map + 1))
      flows.push_back({flow.from, flow.to, percent(flow.pixels, maps.counted())});
  }
  return figure;
}

void write_tables(const TimedMaps& maps, const ChangesOptions& options, Results& results) {
  if (results.wants("changes"))
    write_changes(results.path("changes.csv"), maps, options.pixel_size);
  if (results.wants("gains")) write_gains(results.path("gains.csv"), maps, options.pixel_size);
  if (results.wants("histories") && (maps.size() > 2 || options.shared.asks_for("histories")))
    write_histories(results.path("histories.csv"), maps, options.pixel_size);
}

}  // namespace

const std::vector<ResultKind>& changes_results() {
  static const std::vector<ResultKind> kinds{
      {"changes", "changes.csv: how much of each class became what, from map to map"},
      {"gains", "gains.csv: what each class lost and gained"},
      {"histories", "histories.csv: of more than two maps, what pixels were at every time"},
      {"changed",
       "changed.png: a class map of what changed, and into what; of more than two maps "
       "changed-1.png, changed-2.png and so on"},
      {"figure",
       "flows.figure.png: what became of the classes, as bands; changed.figure.png: the map before "
       "and what changed"}};
  return kinds;
}

Json run_changes(const ChangesOptions& options, const Context& context) {
  Results results(options.shared, context, changes_results(), ResultNames::kRun);
  const FigureFormat format = figure_formats(results, options.shared, context).of_all;
  Json summary = summary_frame("changes");
  TimedMaps maps(options.shared, context);
  write_tables(maps, options, results);
  Plot plot(format);
  if (format != FigureFormat::kNone || results.wants("changed")) {
    ChangedPictures pictures(maps, results, format);
    pictures.paint();
    if (format != FigureFormat::kNone) {
      add_flows_figure(plot, results.path("flows.figure." + extension_of(format)),
                       flows_figure(maps));
      pictures.add_figures(plot);
    }
  }
  draw_figures(plot, context);
  for (std::size_t map = 0; map < maps.size(); ++map)
    summary["inputs"].push_back(map_json(maps, map, options.pixel_size));
  summary["steps"] = Json::array();
  for (const MapStep& step : steps_of(maps.size()))
    summary["steps"].push_back(step_json(maps, step, options.pixel_size));
  if (maps.size() > 2) summary["histories"] = histories_json(maps, options.pixel_size);
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
