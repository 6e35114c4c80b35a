#include "job/classify.h"

#include <algorithm>

#include "core/error.h"
#include "core/learn/classifier.h"
#include "io/model_file.h"
#include "job/class_shares.h"
#include "job/inputs.h"

namespace chalcedony {

const std::vector<ResultKind>& classify_results() {
  static const std::vector<ResultKind> kinds{
      {"classes", "<stem>.classes.png: the class map, with names and colors inside"},
      {"areas",
       "<stem>.areas.csv: pixels, share and area of every class; of several pictures also "
       "areas.csv "
       "with all of them"},
      {"confidence",
       "<stem>.confidence.png and .csv: how sure each pixel is, black to white (with "
       "--confidence)"},
      {"blend", "<stem>.blend.png: the class colors over the picture (with --blend)"},
      {"figure", "<stem>.classes.figure.png: picture, class map and legend"}};
  return kinds;
}

std::string depth_of(const PictureInfo& info) {
  if (info.is_float()) return "float";
  return info.shape.sample == SampleType::kU16 ? "16" : "8";
}

std::string note_on_fit(const Model& model, const PictureInfo& info) {
  if (model.trained_on.empty() || model.trained_on[0].depth.empty()) return {};
  const TrainingPicture& trained = model.trained_on[0];
  const std::string depth = depth_of(info);
  const bool stored = std::any_of(model.features.begin(), model.features.end(),
                                  [](const Channel& c) { return c.is_stored(); });
  const auto kind = [](std::size_t channels, const std::string& bits) {
    return std::to_string(channels) + " channels of " + (bits == "float" ? bits : bits + " bits");
  };
  if (stored && (trained.channels != info.shape.channels || trained.depth != depth))
    throw InputError("stores " + kind(info.shape.channels, depth) +
                         ", and the model looks at stored numbers of pictures with " +
                         kind(trained.channels, trained.depth),
                     "give pictures stored alike, or train with channels of a color space");
  if (trained.depth == depth) return {};
  return "stores " + (depth == "float" ? "floats" : depth + " bits") + ", the model learned from " +
         (trained.depth == "float" ? "floats" : trained.depth + " bits") +
         "; values are the same in both";
}

Json run_classify(const ClassifyOptions& options, const Context& context) {
  Results results(options.shared, classify_results());
  const FigureFormat format =
      results.wants("figure") ? settle_figures(options.shared, context) : FigureFormat::kNone;
  const Model model = read_model(options.model);
  const auto classifier = make_classifier(model, options.reject_percent);
  Json summary = summary_frame("classify");
  summary["model"] = options.model.string();
  summary["method"] = model.method;
  summary["reject_percent"] = options.reject_percent;
  for_each_input(options.shared, context, summary, [&](const std::filesystem::path& input) {
    const std::string note = note_on_fit(
        model, open_counted(input, options.shared, without_warnings(context)).file.info);
    Json json = write_class_map(input, model, *classifier, options.map, options.shared, context,
                                results, format);
    if (!note.empty()) json["note"] = note;
    return json;
  });
  if (results.wants("areas") && options.shared.inputs.size() > 1)
    write_all_areas(results.path("areas.csv"), summary["inputs"]);
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
