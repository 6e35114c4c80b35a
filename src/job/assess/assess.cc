#include "job/assess/assess.h"

#include <memory>
#include <string>
#include <vector>

#include "figure/accuracy_figure.h"
#include "io/file/whole_file.h"
#include "io/text/json_text.h"
#include "job/assess/assess_pictures.h"
#include "job/assess/assess_report.h"
#include "job/assess/assessed_maps.h"
#include "job/assess/assessment.h"
#include "job/assess/compared_maps.h"
#include "job/assess/judged_maps.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"

namespace chalcedony {
namespace {

class AssessJob {
 public:
  AssessJob(const AssessOptions& options, const Context& context, Results& results, Json& summary)
      : options_(options),
        context_(context),
        results_(results),
        maps_(options, context, summary),
        judged_(judge_maps(maps_, options, context)),
        report_(options, maps_, judged_) {}

  void run(Json& summary) {
    const FigureFormats figures = figure_formats(results_, options_.shared, context_);
    Plot plot(figures.of_all);
    if (results_.wants("errors") || draws_versus() || figures.of_each != FigureFormat::kNone)
      paint(plot, figures.of_each);
    write();
    if (plot.format() != FigureFormat::kNone) add_figures(plot);
    draw_figures(plot, context_);
    for (std::size_t i = 0; i < maps_.size(); ++i) {
      summary["inputs"].push_back(report_.map_json(i));
      // In the order of the maps, which those worked on at once do not keep.
      for (const auto& path : context_.ledger->take_written(judged_.each[i].files.map))
        summary["outputs"].push_back(path.string());
    }
    if (!judged_.alone()) summary["together"] = report_.together_json();
  }

 private:
  /// The picture of errors of each map, and the figures that show it.
  void paint(Plot& plot, FigureFormat of_each) {
    std::vector<std::unique_ptr<AssessPictures>> painted(maps_.size());
    const std::vector<SampledPlaces> sampled = sampled_places();
    const auto begin = [&](std::size_t i) {
      painted[i] = std::make_unique<AssessPictures>(
          maps_[i].labels(), judged_.each[i].assessment, results_, of_each,
          PaintedMap{judged_.each[i].files.map, maps_.picture_name(i), judged_.alone()});
    };
    const auto work = [&](std::size_t i) { maps_[i].paint(*painted[i], context_); };
    const auto end = [&](std::size_t i) {
      if (of_each != FigureFormat::kNone)
        painted[i]->add_figures(plot, name_of_map(i), sampled[i].right, sampled[i].wrong);
      painted[i].reset();
    };
    maps_.for_each({.begin = begin, .work = work, .end = end});
  }

  struct SampledPlaces {
    Places right, wrong;
  };

  /// Where the drawn pixels lie in each of the maps.
  std::vector<SampledPlaces> sampled_places() const {
    std::vector<SampledPlaces> places(maps_.size());
    for (const DrawnPixel& drawn : judged_.sampled) {
      const auto [map, x, y] = maps_.numbering().place_of(drawn.pixel);
      const ClassMatching& matching = judged_.matching(map);
      const bool agrees =
          matching.row_of(drawn.labels[kOfMap]) == matching.column_of(drawn.labels[kOfReference]);
      (agrees ? places[map].right : places[map].wrong).push_back({x + 0.5, y + 0.5});
    }
    return places;
  }

  std::string name_of_map(std::size_t map) const {
    return judged_.each[map].files.map.filename().string();
  }

  /// Whether there are maps to be seen side by side.
  bool compares() const { return !judged_.alone() || !options_.versus.empty(); }

  /// Whether which maps are right is to be painted.
  bool draws_versus() const { return results_.wants("versus") && !options_.versus.empty(); }

  void write() {
    if (results_.wants("matrix")) write_matrix(results_.path("matrix.csv"), judged_.together.map);
    if (results_.wants("accuracy")) {
      write_accuracy(results_.path("accuracy.csv"), judged_.together);
      write_text_file(results_.path("accuracy.json"), json_text(report_.all_json(), 2) + "\n");
    }
    if (results_.wants("maps") && (compares() || options_.shared.asks_for("maps")))
      write_maps(results_.path("maps.csv"), judged_);
    if (draws_versus()) write_versus(results_.path("versus.csv"), judged_.together);
    if (results_.wants("sampled") && !judged_.sampled.empty())
      write_sampled(results_.path("sampled.csv"), judged_.sampled.size(),
                    [this](std::size_t i) { return report_.told(i); });
  }

  void add_figures(Plot& plot) {
    const std::string extension = extension_of(plot.format());
    const std::string name =
        judged_.alone() ? name_of_map(0) : std::to_string(maps_.size()) + " maps together";
    const std::vector<std::string>& classes = judged_.together.map.matching.names;
    std::vector<std::string> rows = classes;
    rows.push_back(judged_.together.map.matching.row_name(classes.size()));
    add_matrix_figure(plot, results_.path("matrix.figure." + extension), name, rows,
                      judged_.together.map.matrix, judged_.together.map.accuracy);
    add_accuracy_figure(plot, results_.path("accuracy.figure." + extension), name, classes,
                        judged_.together.map.accuracy);
    if (compares())
      add_maps_figure(plot, results_.path("maps.figure." + extension),
                      maps_figure(judged_, options_));
  }

  const AssessOptions& options_;
  const Context& context_;
  Results& results_;
  AssessedMaps maps_;
  JudgedMaps judged_;
  AssessReport report_;
};

}  // namespace

const std::vector<ResultKind>& assess_results() {
  static const std::vector<ResultKind> kinds{
      {"matrix", "matrix.csv: the error matrix, counts and shares"},
      {"accuracy", "accuracy.csv and accuracy.json: every measure, over all and by class"},
      {"maps", "maps.csv: of several maps, and of those of --versus, the accuracies of each"},
      {"sampled", "sampled.csv: the pixels that were drawn or are in a table, with both labels",
       "count,fraction,stratified,every"},
      {"errors", "<picture>.errors.png: right, unclassified, and wrong as the class it should be"},
      {"versus",
       "<picture>.versus.png: where all maps are right, only the first, only others, none; "
       "versus.csv: the same by class",
       "versus"},
      {"figure",
       "matrix.figure.png, accuracy.figure.png, errors.figure.png, for a sample "
       "sampled.figure.png; of several maps and with --versus maps.figure.png, with --versus "
       "versus.figure.png; of several maps those of pictures for each"}};
  return kinds;
}

Json run_assess(const AssessOptions& options, const Context& context) {
  // Named by the pictures of the maps, which are checked to differ.
  Results results(options.shared, context, assess_results(), ResultNames::kRun);
  Json summary = summary_frame("assess");
  AssessJob(options, context, results, summary).run(summary);
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
