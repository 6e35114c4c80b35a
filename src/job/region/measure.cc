#include "job/region/measure.h"

#include <algorithm>
#include <cmath>
#include <cstdint>

#include "core/error.h"
#include "core/pixel/kept_rows.h"
#include "core/region/class_sizes.h"
#include "core/region/outlines.h"
#include "core/region/region_meter.h"
#include "figure/class_bars_figure.h"
#include "figure/plot/axis.h"
#include "figure/region_figure.h"
#include "figure/sheet_figure.h"
#include "figure/size_figure.h"
#include "io/document/sample_file.h"
#include "io/file/whole_file.h"
#include "io/picture/create_picture.h"
#include "io/picture/label_picture.h"
#include "io/text/json_text.h"
#include "job/learn/region_samples.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/label_input.h"
#include "job/picture/label_preview.h"
#include "job/picture/preview.h"
#include "job/region/measure_report.h"
#include "job/region/region_colors.h"
#include "job/region/region_counts.h"
#include "job/region/region_parts.h"
#include "job/region/region_shares.h"
#include "job/region/shaded_regions.h"
#include "job/repeat/picture_run.h"
#include "job/run/input_list.h"
#include "job/run/partner_files.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostNumbered = 60;  // regions with a number in the figure

/// In which they are found in the figure of regions.
std::vector<std::size_t> by_number(std::vector<std::size_t> regions) {
  std::sort(regions.begin(), regions.end());
  return regions;
}

class MeasureJob {
 public:
  /// `image` and `map`: of the size of the input, for colors and for what regions hold.
  MeasureJob(const std::filesystem::path& input, const std::filesystem::path* image,
             const std::filesystem::path* map, const MeasureOptions& options,
             const Context& context, Results& results, FigureFormat format)
      : input_(input),
        image_file_(image),
        map_file_(map),
        options_(options),
        context_(context),
        results_(results),
        format_(format),
        file_(open_label_input(input, options.shared, context)) {
    found_.pixel_size = options.pixel_size;
    found_.picture_pixels = file_.rows->shape().pixels();
    found_.has_colors = image != nullptr;
    take_resolution(file_.carried, input);
  }

  Json run() {
    measure();
    const bool numbers = options_.numbers && results_.wants("numbers"),
               outlines = options_.outlines && results_.wants("outlines");
    if (numbers) check_numbers();
    if (image_file_) read_image();
    if (map_file_) read_map();
    if (results_.wants("regions")) write_regions(results_.path(input_, "regions", "csv"), found_);
    if (results_.wants("sizes")) write_sizes(results_.path(input_, "sizes", "csv"), found_);
    if (found_.map && results_.wants("shares"))
      write_shares(results_.path(input_, "shares", "csv"), found_);
    if (numbers || outlines || options_.parts || format_ != FigureFormat::kNone)
      work_whole(numbers, outlines);
    if (results_.wants("regions-json"))
      write_text_file(results_.path(input_, "regions", "json"),
                      json_text(regions_json(found_), 2) + "\n");
    return measured_json(input_, found_);
  }

 private:
  void measure() {
    const RasterShape shape = file_.rows->shape();
    RegionMeter meter(shape.width, shape.height, options_.connectivity);
    LabelRows rows(file_);
    for (std::uint32_t y = 0; y < shape.height; ++y) meter.add_row(rows.next());
    found_.regions = meter.finish();
    found_.sizes = sizes_of_classes(found_.regions);
    region_of_part_ = meter.region_of_part();
    std::vector<Label> labels;
    for (const ClassSizes& sizes : found_.sizes) labels.push_back(sizes.label);
    const FoundClasses told = classes_found(file_, labels);
    found_.is_mask = told.is_mask;
    found_.names.resize(kLabels);
    found_.class_colors.resize(kLabels);
    for (const LegendEntry& entry : told.classes) {
      found_.names[entry.index] = entry.name;
      found_.class_colors[entry.index] = entry.color;
    }
  }

  /// The size of a pixel by what a file says, where nothing else has said it.
  void take_resolution(const CarriedFacts& carried, const std::filesystem::path& from) {
    constexpr double kMillimeters = 1000, kAlike = 0.01;
    if (found_.pixel_size.is_known() || !carried.has_resolution()) return;
    const double x = carried.pixels_per_meter_x, y = carried.pixels_per_meter_y;
    if (std::abs(x - y) > kAlike * x) {
      context_.warn(from.string() +
                    ": its resolution is not the same across and down, so lengths are in pixels");
      return;
    }
    found_.pixel_size = {kMillimeters / x, "mm"};
    found_.pixel_size_from = from;
  }

  void read_image() {
    CountedPicture image = open_counted(*image_file_, options_.shared, context_);
    take_resolution(image.file.facts.carried, *image_file_);
    Preview preview(image.file.info, format_ != FigureFormat::kNone);
    found_.channels = quoted_channels(options_.channels, options_.shared.units, codes_of(image));
    found_.colors =
        region_colors(image, file_, options_.connectivity, region_of_part_, found_.regions.size(),
                      found_.channels, preview, options_.shared, context_);
    if (preview.wanted()) image_ = preview.thumbnail();
  }

  void read_map() {
    found_.map = map_in_regions(*map_file_, file_, options_.connectivity, region_of_part_,
                                found_.regions.size(), options_.shared, context_);
    found_.shares = shares_by_class(found_);
  }

  /// What needs the whole picture of labels in memory.
  void work_whole(bool numbers, bool outlines) {
    LabelPicture picture = read_label_input(input_, options_.shared, without_warnings(context_));
    if (options_.parts) part(picture);
    if (!numbers && !outlines && format_ == FigureFormat::kNone) return;
    const RegionMap map = find_regions(picture.grid, options_.connectivity);
    if (numbers) write_numbers(picture, map);
    const auto rings =
        outlines_of(map, picture.grid.width, picture.grid.height, options_.connectivity);
    if (outlines) write_outlines(picture, rings);
    if (format_ != FigureFormat::kNone) draw(picture, map, rings);
  }

  void part(const LabelPicture& picture) {
    found_.parted = parted_classes(picture);
    if (results_.wants("parts"))
      write_part_counts(results_.path(input_, "parts", "csv"), found_.parted);
  }

  void check_numbers() const {
    if (found_.regions.size() > 65535)
      throw InputError(
          "has " + std::to_string(found_.regions.size()) + " regions, more than 16 bits can number",
          "drop the smallest ones with tidy first", input_.string());
  }

  void write_numbers(const LabelPicture& picture, const RegionMap& map) {
    std::vector<std::uint16_t> numbers(picture.grid.labels.size());
    for (const RegionRun& run : map.runs)
      std::fill_n(numbers.begin() + static_cast<std::ptrdiff_t>(
                                        std::size_t{run.y} * picture.grid.width + run.begin),
                  run.end - run.begin, static_cast<std::uint16_t>(run.part + 1));
    const auto* const bytes = reinterpret_cast<const std::byte*>(numbers.data());
    write_picture(results_.path(input_, "numbers", "png"),
                  label_spec({picture.grid.width, picture.grid.height}, SampleType::kU16),
                  {bytes, bytes + 2 * numbers.size()});
  }

  /// As sample regions, so that they can be corrected and trained with.
  void write_outlines(const LabelPicture& picture, const std::vector<std::vector<Ring>>& rings) {
    std::vector<Label> labels;
    for (const RegionMeasures& region : found_.regions) labels.push_back(region.label);
    write_text_file(
        results_.path(input_, "outlines", "geojson"),
        samples_text(samples_of_regions(labels, rings, found_.names, found_.class_colors),
                     picture.grid.width, picture.grid.height));
  }

  /// The labels of the picture are written over.
  void draw(LabelPicture& picture, const RegionMap& map,
            const std::vector<std::vector<Ring>>& rings) {
    std::vector<ShownRegion> shown;
    for (const std::size_t r : largest_regions(found_.regions, kMostNumbered))
      shown.push_back({r + 1, found_.regions[r], rings[r]});
    const std::string all = grouped(static_cast<double>(found_.regions.size()));
    const std::string sentence =
        (shown.size() == found_.regions.size()
             ? "all " + all
             : "the " + std::to_string(shown.size()) + " largest of " + all) +
        " regions; coordinates are pixels";
    const std::string name = input_.filename().string(), extension = extension_of(format_);
    const Thumbnail thumbnail = image_ ? *image_ : label_thumbnail(picture);
    Plot plot(format_);
    add_region_figure(plot, results_.path(input_, "regions.figure", extension), name, shown,
                      sentence, thumbnail);
    if (shown.size() > 1)
      add_size_figure(plot, results_.path(input_, "sizes.figure", extension), name,
                      shown_sizes(found_), found_.pixel_size.unit);
    if (!found_.parted.empty())
      add_part_figure(plot, results_.path(input_, "parts.figure", extension), name, found_.parted,
                      thumbnail);
    if (found_.map && !found_.regions.empty()) draw_map(plot, picture, map);
    draw_figures(plot, context_);
  }

  void draw_map(Plot& plot, LabelPicture& picture, const RegionMap& map) {
    const std::string name = input_.filename().string(), extension = extension_of(format_);
    const ClassBars bars =
        share_bars(found_, by_number(largest_regions(found_.regions, kMostNumbered)), name);
    add_class_bars_figure(plot, results_.path(input_, "shares.figure", extension), bars);
    if (found_.regions.size() > 1)
      add_sheet(plot, results_.path(input_, "shaded.figure", extension), bars.title,
                "of each class the region that has least is darkest, and the one that has most, by "
                "its number, is lightest; specks do not count for that",
                shaded_regions(found_, map, picture));
  }

  std::filesystem::path input_;
  const std::filesystem::path* image_file_;
  const std::filesystem::path* map_file_;
  const MeasureOptions& options_;
  const Context& context_;
  Results& results_;
  FigureFormat format_;
  LabelFile file_;
  MeasuredRegions found_;
  std::vector<std::uint32_t> region_of_part_;
  std::optional<Thumbnail> image_;
};

}  // namespace

const std::vector<ResultKind>& measure_results() {
  static const std::vector<ResultKind> kinds{
      {"regions", "<stem>.regions.csv: size, place, shape and color of every region"},
      {"regions-json", "<stem>.regions.json: the same"},
      {"sizes",
       "<stem>.sizes.csv: how many regions every class has, and how large they are; of several "
       "pictures also sizes.csv, and so with regions"},
      {"outlines", "<stem>.outlines.geojson: outlines as sample regions", "outlines"},
      {"shares",
       "<stem>.shares.csv: what each class of --map takes of the regions of every class, and "
       "between what limits in each; of several pictures also shares.csv",
       "map"},
      {"parts",
       "<stem>.parts.csv: how many regions there are for each H of the step part of tidy; "
       "of several pictures also parts.csv",
       "parts"},
      {"numbers", "<stem>.numbers.png: the number of its region at each pixel", "numbers"},
      {"figure",
       "<stem>.regions.figure.png: outlines, boxes and numbers on the picture; "
       "<stem>.sizes.figure.png: how sizes are distributed; with --map "
       "<stem>.shares.figure.png: the classes in each region, and <stem>.shaded.figure.png: the "
       "regions by how much each class takes of them; <stem>.parts.figure.png with --parts; of "
       "several pictures also "
       "counts.figure.png: how many regions each has, sizes.figure.png: how large they are, and "
       "shares.figure.png with --map"}};
  return kinds;
}

Json run_measure(const MeasureOptions& options, const Context& context) {
  PictureRun run("measure", options.shared, context, measure_results());
  std::optional<PartnerFiles> images, maps;
  if (options.image) images.emplace(*options.image, is_picture_name);
  if (options.map)
    maps.emplace(*options.map, is_picture_or_samples, "classes", NameCuts::kPointsAndHyphens,
                 is_class_map_file);
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    const std::filesystem::path* const image =
        images ? &images->of(input, *context.ledger) : nullptr;
    const std::filesystem::path* const map = maps ? &maps->of(input, *context.ledger) : nullptr;
    return MeasureJob(input, image, map, options, its_context, run.results(), run.figures().of_each)
        .run();
  };
  return run.do_each(do_one, report_region_counts);
}

}  // namespace chalcedony
