#include "job/region/tidy.h"

#include <cstddef>
#include <cstdint>
#include <string>
#include <vector>

#include "core/error.h"
#include "core/palette/figure_colors.h"
#include "figure/map_figure.h"
#include "io/document/sample_file.h"
#include "io/picture/label_picture.h"
#include "io/text/csv.h"
#include "job/map/class_shares.h"
#include "job/map/picture_shares.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/label_input.h"
#include "job/picture/label_preview.h"
#include "job/region/clean_labels.h"
#include "job/region/drawn_classes.h"
#include "job/repeat/picture_run.h"
#include "job/run/partner_files.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// How many pixels each label has.
std::vector<std::uint64_t> counts_of(const LabelGrid& grid) {
  std::vector<std::uint64_t> counts(kLabels);
  for (const Label label : grid.labels) ++counts[label];
  return counts;
}

/// Turning over is for masks: a class map has no one class that the others could become.
void refuse_invert(const std::vector<TidyStep>& steps, const LabelPicture& picture,
                   const path& input) {
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
void write_shares(const path& file, const LabelPicture& picture, const ClassCounts& counts,
                  const PixelSize& size) {
  CsvTable table({"index", "class", "color", "before", "pixels", "share_percent", "unit", "area"});
  const auto add = [&](Label label, const std::string& name, const std::string& color) {
    table.add({std::uint64_t{label}, name, color, counts.before[label], counts.after[label],
               counts.percent_after(label), size.unit, size.area(counts.after[label])});
  };
  if (!picture.is_mask) add(0, "unclassified", "");
  for (const LegendEntry& entry : picture.classes)
    add(entry.index, entry.name, color_on_paper(picture.is_mask, entry.color));
  table.write(file);
}

std::vector<LegendLine> legend_of(const LabelPicture& picture, const ClassCounts& counts) {
  std::vector<LegendLine> legend;
  for (const LegendEntry& entry : picture.classes)
    legend.push_back({entry.name, entry.color, counts.percent_after(entry.index)});
  if (!picture.is_mask) add_unclassified(legend, counts.after[0], counts.pixels);
  return legend;
}

class TidyJob {
 public:
  TidyJob(const TidyOptions& options, const Results& results, FigureFormat format)
      : options_(options), results_(results), format_(format) {
    if (options.drawn) drawn_.emplace(*options.drawn, is_sample_file, "samples");
  }

  Json do_one(const path& input, const Context& context) const {
    LabelPicture picture = read_label_input(input, options_.shared, context);
    refuse_invert(options_.steps, picture, input);
    const LabelPicture before = picture;
    Json json{{"file", input.string()},
              {"kind", picture.is_mask ? "mask" : "class map"},
              {"pixels", picture.grid.labels.size()}};
    json["steps"] = errors_at(input.string(), [&] {
      return clean_labels(picture.grid, before.grid, picture.classes, options_.steps,
                          options_.shared);
    });
    if (drawn_ && drawn_->find(input))
      json["steps"].push_back(draw(drawn_->of(input, *context.ledger), picture, context));
    const ClassCounts counts{counts_of(before.grid), counts_of(picture.grid),
                             picture.grid.labels.size()};
    json["changed"] = differing(before.grid, picture.grid);
    json["unit"] = options_.pixel_size.unit;
    json["classes"] = classes_json(picture, counts, options_.pixel_size);
    if (!picture.is_mask)
      json["unclassified"] = {{"before", counts.before[0]},
                              {"pixels", counts.after[0]},
                              {"percent", counts.percent_after(0)}};
    if (results_.wants("tidy")) write_label_picture(results_.path(input, "tidy", "png"), picture);
    if (results_.wants("shares"))
      write_shares(results_.path(input, "tidy", "csv"), picture, counts, options_.pixel_size);
    if (format_ != FigureFormat::kNone)
      draw_figure(input, before, picture, legend_of(picture, counts), context);
    return json;
  }

  /// The files of regions that go with maps, or null.
  const PartnerFiles* drawn() const { return drawn_ ? &*drawn_ : nullptr; }

 private:
  /// Puts the regions of a file into the map; what that changed, as a step.
  Json draw(const path& file, LabelPicture& picture, const Context& context) const {
    const LabelGrid& grid = picture.grid;
    const SampleSet regions = without_guesses(
        read_samples(file, grid.width, grid.height, options_.shared.samples_of_other_size), file,
        context);
    const std::uint64_t changed =
        errors_at(file.string(), [&] { return draw_classes(regions, picture); });
    return {{"step", "as drawn in " + file.string()}, {"changed", changed}};
  }

  void draw_figure(const path& input, const LabelPicture& before, const LabelPicture& after,
                   const std::vector<LegendLine>& legend, const Context& context) const {
    std::string done = text_of(options_.steps);
    if (options_.drawn) done += done.empty() ? "as drawn" : "; as drawn";
    Plot plot(format_);
    add_tidy_figure(plot, results_.path(input, "tidy.figure", extension_of(format_)),
                    input.filename().string(), done, legend, label_thumbnail(before),
                    label_thumbnail(after));
    draw_figures(plot, context);
  }

  const TidyOptions& options_;
  const Results& results_;
  const FigureFormat format_;
  std::optional<PartnerFiles> drawn_;
};

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
  PictureRun run("tidy", options.shared, context, tidy_results());
  const TidyJob job(options, run.results(), run.figures().of_each);
  return run.do_each([&](const path& input, const Context& its) { return job.do_one(input, its); },
                     report_cleaned, job.drawn());
}

void report_cleaned(Json& summary, Plot& plot, Results& results) {
  report_class_shares(summary, cleaned_shares(summary["inputs"]),
                      {"cleaned classes", "tidy.figure"}, plot, results);
}

}  // namespace chalcedony
