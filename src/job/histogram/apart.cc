#include "job/histogram/apart.h"

#include "core/error.h"
#include "job/histogram/apart_report.h"
#include "job/histogram/apart_together.h"
#include "job/histogram/class_counts.h"
#include "job/histogram/class_source.h"
#include "job/histogram/classes_apart.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/repeat/picture_run.h"
#include "job/run/partner_files.h"
#include "job/run/results.h"
#include "job/run/selection_file.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

void require_two_classes(const ClassCounts& counts, const path& classes) {
  if (counts.classes_with_pixels() < 2)
    throw InputError("has fewer than two classes with pixels that count",
                     "give a map with more, or check --region and --within", classes.string());
}

Json tell_apart(const path& input, const path& classes, const ApartOptions& options,
                const Context& context, const Results& results, FigureFormat format,
                ApartTogether& together) {
  CountedPicture picture = open_counted(input, options.shared, context);
  ClassSource source = open_classes(classes, picture.shape(), options.shared);
  const ClassCounts counts =
      count_by_class(picture, source, options.channels, options.bins, options.shared, context);
  require_two_classes(counts, classes);
  const FoundApart found{source.classes, channels_apart(counts)};
  if (results.wants("intervals"))
    write_class_intervals(results.path(input, "intervals", "csv"), found);
  const std::vector<ClassSelection> selections = class_selections(found);
  if (results.wants("selections") && !selections.empty())
    write_selection_file(results.path(input, "apart", "yaml"), selections, options.shared);
  if (results.wants("overlaps"))
    write_class_overlaps(results.path(input, "overlaps", "csv"), found);
  if (results.wants("counts"))
    write_class_histograms(results.path(input, "class-histogram", "csv"), found);
  else if (options.shared.inputs.size() > 1)
    together.keep(input, counts);
  if (format != FigureFormat::kNone) {
    Plot plot(format);
    add_apart_figure(plot, results.path(input, "apart.figure", extension_of(format)),
                     picture.name(), found);
    draw_figures(plot, context);
  }
  Json json{{"file", input.string()},
            {"classes_from", classes.string()},
            {"excluded", excluded_json(counts.excluded)}};
  report_apart(found, json);
  return json;
}

}  // namespace

const std::vector<ResultKind>& apart_results() {
  static const std::vector<ResultKind> kinds{
      {"intervals",
       "<stem>.intervals.csv: of every class in every channel the interval that takes it best, as "
       "a selection; of several pictures also intervals.csv, and so with the other tables, and of "
       "all of them together apart.csv"},
      {"selections",
       "<stem>.apart.yaml: these intervals as the classes of a map, for slice and tune with "
       "--config; of all pictures together apart.yaml"},
      {"overlaps", "<stem>.overlaps.csv: what every two classes have in common in every channel"},
      {"counts", "<stem>.class-histogram.csv: the bins of every channel, class by class"},
      {"figure",
       "<stem>.apart.figure.png: a curve for each class in every channel; of all pictures "
       "together apart.figure.png"}};
  return kinds;
}

Json run_apart(const ApartOptions& options, const Context& context) {
  PictureRun run("apart", options.shared, context, apart_results());
  const PartnerFiles classes(options.classes, is_picture_or_samples, "reference",
                             NameCuts::kPoints);
  ApartTogether together(options.shared, context);
  const auto do_one = [&](const path& input, const Context& its_context) {
    return tell_apart(input, classes.of(input, *its_context.ledger), options, its_context,
                      run.results(), run.figures().of_each, together);
  };
  return run.do_each(
      do_one, [&](Json& told, Plot& plot, Results& into) { together.report(told, plot, into); });
}

}  // namespace chalcedony
