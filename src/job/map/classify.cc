#include "job/map/classify.h"

#include <utility>

#include "core/error.h"
#include "core/learn/classifier.h"
#include "io/document/model_file.h"
#include "job/map/picture_shares.h"
#include "job/map/places_to_check.h"
#include "job/picture/inputs.h"
#include "job/repeat/picture_run.h"

namespace chalcedony {
namespace {

/// Which places of several pictures are to be checked first.
void report_suggestions(Json& summary, Plot& plot, Results& results, const Model& model,
                        const ClassifyOptions& options, const Context& context) {
  const Json& pictures = summary["inputs"];
  if (options.map.suggest == 0 || pictures.size() < 2) return;
  Json places = places_to_check(pictures, options.map.suggest);
  if (plot.format() != FigureFormat::kNone && !places.empty())
    add_places_to_check(plot, results.path("suggested.figure." + extension_of(plot.format())),
                        places, pictures.size(), map_classes(model), options.shared, context);
  summary["check_first"] = std::move(places);
}

}  // namespace

const std::vector<ResultKind>& classify_results() {
  static const std::vector<ResultKind> kinds{
      {"classes", "<stem>.classes.png: the class map, with names and colors inside"},
      {"areas",
       "<stem>.areas.csv: pixels, share and area of every class; of several pictures also "
       "areas.csv"},
      {"confidence", "<stem>.confidence.png and .csv: how sure each pixel is, black to white",
       "confidence"},
      {"blend", "<stem>.blend.png: the class colors over the picture", "blend"},
      {"suggested",
       "<stem>.suggested.geojson and .csv: where samples would help, with guesses to be checked; "
       "of "
       "several pictures also suggested.csv, in the order in which to check them",
       "suggest"},
      {"figure",
       "<stem>.classes.figure.png: picture, class map and legend; of several pictures also "
       "areas.figure.png: the shares of all; with --suggest also <stem>.suggested.figure.png with "
       "close-ups, and of several pictures suggested.figure.png"}};
  return kinds;
}

Json run_classify(const ClassifyOptions& options, const Context& context) {
  PictureRun run("classify", options.shared, context, classify_results());
  const Model model = read_model(options.model);
  const auto classifier = errors_at(options.model.string(),
                                    [&] { return make_classifier(model, options.reject_percent); });
  run.summary()["model"] = options.model.string();
  run.summary()["method"] = model.method;
  run.summary()["reject_percent"] = options.reject_percent;
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    return write_class_map(open_counted(input, options.shared, its_context), model, *classifier,
                           options.map, options.shared, its_context, run.results(),
                           run.figures().of_each);
  };
  const auto report = [&](Json& all, Plot& plot, Results& written) {
    report_mapped(all, plot, written);
    report_suggestions(all, plot, written, model, options, context);
  };
  return run.do_each(do_one, report);
}

void report_mapped(Json& summary, Plot& plot, Results& results) {
  report_class_shares(summary, summary["inputs"], {"classes", "areas.figure"}, plot, results);
}

}  // namespace chalcedony
