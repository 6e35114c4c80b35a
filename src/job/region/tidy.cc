#include "job/region/tidy.h"

#include <cstdint>
#include <vector>

#include "core/error.h"
#include "figure/map_figure.h"
#include "io/picture/label_picture.h"
#include "job/map/class_shares.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/label_preview.h"
#include "job/region/clean_labels.h"
#include "job/repeat/each_input.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

/// How many pixels each label has.
std::vector<std::uint64_t> counts_of(const LabelGrid& grid) {
  std::vector<std::uint64_t> counts(kLabels);
  for (const Label label : grid.labels) ++counts[label];
  return counts;
}

/// Turning over is for masks: a class map has no one class that the others could become.
void refuse_invert(const std::vector<TidyStep>& steps, const LabelPicture& picture,
                   const std::filesystem::path& input) {
  for (const TidyStep& step : steps)
    if (step.kind == TidyStep::Kind::kInvert && !picture.is_mask)
      throw InputError("is a class map, and 'invert' is for masks", "leave that step out",
                       input.string());
}

Json tidy_picture(const std::filesystem::path& input, const TidyOptions& options,
                  const Context& context, Results& results, FigureFormat format) {
  LabelPicture picture = read_label_picture(input, options.shared.max_pixels);
  refuse_invert(options.steps, picture, input);
  const LabelPicture before = picture;
  Json json{{"file", input.string()},
            {"kind", picture.is_mask ? "mask" : "class map"},
            {"pixels", picture.grid.labels.size()}};
  json["steps"] = clean_labels(picture.grid, before.grid, options.steps, options.shared);
  const std::vector<std::uint64_t> was = counts_of(before.grid), is = counts_of(picture.grid);
  json["changed"] = differing(before.grid, picture.grid);
  json["classes"] = Json::array();
  std::vector<LegendLine> legend;
  for (const LegendEntry& entry : picture.classes) {
    const double share = percent(is[entry.index], picture.grid.labels.size());
    json["classes"].push_back({{"index", entry.index},
                               {"name", entry.name},
                               {"before", was[entry.index]},
                               {"pixels", is[entry.index]},
                               {"percent", share}});
    legend.push_back({entry.name, entry.color, share});
  }
  // What a mask does not select has no class either, and nobody asks for its share.
  if (!picture.is_mask) {
    json["unclassified"] = {{"before", was[0]},
                            {"pixels", is[0]},
                            {"percent", percent(is[0], picture.grid.labels.size())}};
    add_unclassified(legend, is[0], picture.grid.labels.size());
  }
  if (results.wants("tidy")) write_label_picture(results.path(input, "tidy", "png"), picture);
  if (format == FigureFormat::kNone) return json;
  Plot plot(format);
  add_tidy_figure(plot, results.path(input, "tidy.figure", extension_of(format)),
                  input.filename().string(), text_of(options.steps), legend,
                  label_thumbnail(before), label_thumbnail(picture));
  draw_figures(plot, context);
  return json;
}

}  // namespace

const std::vector<ResultKind>& tidy_results() {
  static const std::vector<ResultKind> kinds{
      {"tidy", "<stem>.tidy.png: the cleaned mask or class map"},
      {"figure", "<stem>.tidy.figure.png: before and after"}};
  return kinds;
}

Json run_tidy(const TidyOptions& options, const Context& context) {
  Results results(options.shared, context, tidy_results());
  const FigureFormat format = figure_formats(results, options.shared, context).of_each;
  Json summary = summary_frame("tidy");
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    return tidy_picture(input, options, its_context, results, format);
  };
  for_each_input(options.shared, context, summary, do_one);
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
