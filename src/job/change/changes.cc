#include "job/change/changes.h"

#include <deque>

#include "figure/changes_figure.h"
#include "io/picture/label_file.h"
#include "job/change/changed_pictures.h"
#include "job/change/changes_of_places.h"
#include "job/change/changes_report.h"
#include "job/change/place_results.h"
#include "job/change/timed_maps.h"
#include "job/picture/figures.h"
#include "job/repeat/each_input.h"
#include "job/run/input_list.h"
#include "job/run/partner_files.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

/// The maps of each place, in the order of time.
class MapsOfPlaces {
 public:
  /// Errors    InputError when there is no such file or folder, or no file fits a pattern
  explicit MapsOfPlaces(const ChangesOptions& options)
      : of_only_one_(options.then.empty() ? options.shared.inputs
                                          : std::vector<std::filesystem::path>()) {
    // Those of pane-2 are another place than those of pane.
    for (const std::filesystem::path& named : options.then)
      later_.emplace_back(named, is_picture_name, "", NameCuts::kPoints, is_class_map_file);
  }

  /// Errors    InputError when a later map is not there, or two go with the first one alike
  std::vector<std::filesystem::path> of(const std::filesystem::path& first,
                                        RunLedger& ledger) const {
    if (!of_only_one_.empty()) return of_only_one_;
    std::vector<std::filesystem::path> maps{first};
    for (const PartnerFiles& files : later_) maps.push_back(files.of(first, ledger));
    return maps;
  }

 private:
  std::vector<std::filesystem::path> of_only_one_;
  std::deque<PartnerFiles> later_;
};

void write_tables(const TimedMaps& maps, const ChangesOptions& options,
                  const PlaceResults& results) {
  if (results.wants("changes"))
    write_changes(results.path("changes", "csv"), maps, options.pixel_size);
  if (results.wants("gains")) write_gains(results.path("gains", "csv"), maps, options.pixel_size);
  if (results.wants("histories") && (maps.size() > 2 || options.shared.asks_for("histories")))
    write_histories(results.path("histories", "csv"), maps, options.pixel_size);
}

void paint_pictures(TimedMaps& maps, const Json& place, const PlaceResults& results,
                    FigureFormat format, const Context& context) {
  if (format == FigureFormat::kNone && !results.wants("changed")) return;
  ChangedPictures pictures(maps, results, format);
  pictures.paint();
  if (format == FigureFormat::kNone) return;
  Plot plot(format);
  add_flows_figure(plot, results.path("flows.figure", extension_of(format)),
                   flows_figure(place, maps.names()));
  pictures.add_figures(plot);
  draw_figures(plot, context);
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
      {"places",
       "places.csv: of several places, how each class went in all of them together, and between "
       "what limits in places like them; every other result is <stem>.changes.csv and so on then, "
       "and its tables are also joined"},
      {"figure",
       "flows.figure.png: what became of the classes, as bands; changed.figure.png: the map before "
       "and what changed; of several places also gains.figure.png: how each class went in each"}};
  return kinds;
}

Json run_changes(const ChangesOptions& options, const Context& context) {
  const bool only_one = options.then.empty();
  Results results(options.shared, context, changes_results(),
                  only_one ? ResultNames::kRun : ResultNames::kInputs);
  SharedOptions places = options.shared;
  if (only_one) places.inputs.resize(1);
  const MapsOfPlaces maps_of_places(options);
  const FigureFormats figures = figure_formats(results, places, context);
  Json summary = summary_frame("changes");
  const auto do_one = [&](const std::filesystem::path& first, const Context& its_context) {
    TimedMaps maps(maps_of_places.of(first, *its_context.ledger), options.shared, its_context);
    const PlaceResults its_results(results, only_one ? std::filesystem::path() : first);
    write_tables(maps, options, its_results);
    Json place = place_json(maps, options.pixel_size);
    paint_pictures(maps, place, its_results, figures.of_each, its_context);
    return place;
  };
  for_each_input(places, context, summary, do_one);
  end_with_report(summary, figures.of_all, report_changes, results, context);
  return summary;
}

}  // namespace chalcedony
