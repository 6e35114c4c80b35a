#include "job/classify.h"

#include "core/learn/classifier.h"
#include "io/model_file.h"
#include "job/class_map.h"
#include "job/inputs.h"

namespace chalcedony {

const std::vector<ResultKind>& classify_results() {
  static const std::vector<ResultKind> kinds{
      {"classes", "<stem>.classes.png: the class map, with names and colors inside"},
      {"areas", "<stem>.areas.csv: pixels and share of every class"},
      {"figure", "<stem>.classes.figure.png: picture, class map and legend"}};
  return kinds;
}

Json run_classify(const ClassifyOptions& options, const Context& context) {
  Results results(options.shared, classify_results());
  const FigureFormat format =
      results.wants("figure") ? settle_figures(options.shared, context) : FigureFormat::kNone;
  const Model model = read_model(options.model);
  const auto classifier = make_classifier(model);
  Json summary = summary_frame("classify");
  summary["model"] = options.model.string();
  summary["method"] = model.method;
  for_each_input(options.shared, context, summary, [&](const std::filesystem::path& input) {
    return write_class_map(input, model, *classifier, "classes", options.shared, context, results,
                           format);
  });
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
