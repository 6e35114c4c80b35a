#include "job/region/tidy.h"

#include <cstdint>
#include <vector>

#include "core/error.h"
#include "core/palette/figure_colors.h"
#include "figure/map_figure.h"
#include "io/picture/label_picture.h"
#include "io/text/csv.h"
#include "job/map/class_shares.h"
#include "job/map/picture_shares.h"
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

/// What the classes of a map take before and after.
struct ClassCounts {
  std::vector<std::uint64_t> before, after;  // of each label
  std::uint64_t pixels;

  double percent_after(Label label) const { return percent(after[label], pixels); }
};

Json classes_json(const LabelPicture& picture, const ClassCounts& counts, const PixelSize& size) {
  Json classes = Json::array();
  for (const LegendEntry& entry : picture.classes)
    classes.push_back({{"index", entry.index},
                       {"name", entry.name},
                       {"color", color_on_paper(picture.is_mask, entry.color)},
                       {"before", counts.before[entry.index]},
                       {"pixels", counts.after[entry.index]},
                       {"percent", counts.percent_after(entry.index)},
                       {"area", size.area(counts.after[entry.index])}});
  return classes;
}

/// The table of a picture: what is of no class first, as numbers go. What a mask does not select
/// has no class either, and nobody asks for its share.
void write_shares(const std::filesystem::path& path, const LabelPicture& picture,
                  const ClassCounts& counts, const PixelSize& size) {
  CsvTable table({"index", "class", "color", "before", "pixels", "share_percent", "unit", "area"});
  const auto add = [&](Label label, const std::string& name, const std::string& color) {
    table.add({std::uint64_t{label}, name, color, counts.before[label], counts.after[label],
               counts.percent_after(label), size.unit, size.area(counts.after[label])});
  };
  if (!picture.is_mask) add(0, "unclassified", "");
  for (const LegendEntry& entry : picture.classes)
    add(entry.index, entry.name, color_on_paper(picture.is_mask, entry.color));
  table.write(path);
}

std::vector<LegendLine> legend_of(const LabelPicture& picture, const ClassCounts& counts) {
  std::vector<LegendLine> legend;
  for (const LegendEntry& entry : picture.classes)
    legend.push_back({entry.name, entry.color, counts.percent_after(entry.index)});
  if (!picture.is_mask) add_unclassified(legend, counts.after[0], counts.pixels);
  return legend;
}

Json tidy_picture(const std::filesystem::path& input, const TidyOptions& options,
                  const Context& context, Results& results, FigureFormat format) {
  LabelPicture picture = read_label_picture(input, options.shared.max_pixels);
  refuse_invert(options.steps, picture, input);
  const LabelPicture before = picture;
  Json json{{"file", input.string()},
            {"kind", picture.is_mask ? "mask" : "class map"},
            {"pixels", picture.grid.labels.size()}};
  json["steps"] = errors_at(input.string(), [&] {
    return clean_labels(picture.grid, before.grid, picture.classes, options.steps, options.shared);
  });
  const ClassCounts counts{counts_of(before.grid), counts_of(picture.grid),
                           picture.grid.labels.size()};
  json["changed"] = differing(before.grid, picture.grid);
  json["unit"] = options.pixel_size.unit;
  json["classes"] = classes_json(picture, counts, options.pixel_size);
  if (!picture.is_mask)
    json["unclassified"] = {{"before", counts.before[0]},
                            {"pixels", counts.after[0]},
                            {"percent", counts.percent_after(0)}};
  if (results.wants("tidy")) write_label_picture(results.path(input, "tidy", "png"), picture);
  if (results.wants("shares"))
    write_shares(results.path(input, "tidy", "csv"), picture, counts, options.pixel_size);
  if (format == FigureFormat::kNone) return json;
  Plot plot(format);
  add_tidy_figure(plot, results.path(input, "tidy.figure", extension_of(format)),
                  input.filename().string(), text_of(options.steps), legend_of(picture, counts),
                  label_thumbnail(before), label_thumbnail(picture));
  draw_figures(plot, context);
  return json;
}

/// The cleaned pictures as report_class_shares() takes them: all pixels count.
Json cleaned_shares(const Json& inputs) {
  Json pictures = Json::array();
  for (const Json& input : inputs)
    pictures.push_back(
        {{"file", input["file"]},
         {"counted", input["pixels"]},
         {"unclassified", input.value("/unclassified/pixels"_json_pointer, std::uint64_t{0})},
         {"unit", input["unit"]},
         {"classes", input["classes"]}});
  return pictures;
}

}  // namespace

const std::vector<ResultKind>& tidy_results() {
  static const std::vector<ResultKind> kinds{
      {"tidy", "<stem>.tidy.png: the cleaned mask or class map"},
      {"shares",
       "<stem>.tidy.csv: pixels, share and area of every class before and after; of several "
       "pictures also tidy.csv"},
      {"figure",
       "<stem>.tidy.figure.png: before and after; of several pictures also tidy.figure.png: the "
       "shares of all"}};
  return kinds;
}

Json run_tidy(const TidyOptions& options, const Context& context) {
  Results results(options.shared, context, tidy_results());
  const FigureFormats figures = figure_formats(results, options.shared, context);
  Json summary = summary_frame("tidy");
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    return tidy_picture(input, options, its_context, results, figures.of_each);
  };
  for_each_input(options.shared, context, summary, do_one);
  end_with_report(summary, figures.of_all, report_cleaned, results, context);
  return summary;
}

void report_cleaned(Json& summary, Plot& plot, Results& results) {
  report_class_shares(summary, cleaned_shares(summary["inputs"]),
                      {"cleaned classes", "tidy.figure"}, plot, results);
}

}  // namespace chalcedony
