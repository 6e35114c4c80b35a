#include "job/region/measure.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numeric>
#include <set>

#include "core/error.h"
#include "core/palette/figure_colors.h"
#include "core/pixel/kept_rows.h"
#include "core/region/class_sizes.h"
#include "core/region/outlines.h"
#include "core/region/region_meter.h"
#include "figure/region_figure.h"
#include "io/document/sample_file.h"
#include "io/file/whole_file.h"
#include "io/picture/create_picture.h"
#include "io/picture/label_picture.h"
#include "io/text/csv.h"
#include "io/text/json_text.h"
#include "job/learn/region_samples.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/label_preview.h"
#include "job/picture/preview.h"
#include "job/region/channel_figures.h"
#include "job/region/region_colors.h"
#include "job/region/region_counts.h"
#include "job/region/region_parts.h"
#include "job/repeat/each_input.h"
#include "job/run/input_list.h"
#include "job/run/partner_files.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostNumbered = 60;    // regions with a number in the figure
constexpr std::size_t kMostInSummary = 100;  // the largest; the table has all

class MeasureJob {
 public:
  /// `image`: of the size of the input, for colors.
  MeasureJob(const std::filesystem::path& input, const std::filesystem::path* image,
             const MeasureOptions& options, const Context& context, Results& results,
             FigureFormat format)
      : input_(input),
        image_file_(image),
        options_(options),
        context_(context),
        results_(results),
        format_(format),
        file_(open_labels(input, options.shared.max_pixels)),
        pixel_size_(options.pixel_size) {
    take_resolution(file_.carried, input);
  }

  Json run() {
    measure();
    const bool numbers = options_.numbers && results_.wants("numbers"),
               outlines = options_.outlines && results_.wants("outlines");
    if (numbers) check_numbers();
    if (image_file_) read_image();
    if (results_.wants("regions")) write_table();
    if (results_.wants("sizes")) write_sizes();
    if (numbers || outlines || options_.parts || format_ != FigureFormat::kNone)
      work_whole(numbers, outlines);
    Json json = report();
    if (results_.wants("regions-json"))
      write_text_file(results_.path(input_, "regions", "json"),
                      json_text(regions_json(in_order()), 2) + "\n");
    return json;
  }

 private:
  void measure() {
    const RasterShape shape = file_.rows->shape();
    RegionMeter meter(shape.width, shape.height, options_.connectivity);
    LabelRows rows(file_);
    for (std::uint32_t y = 0; y < shape.height; ++y) meter.add_row(rows.next());
    regions_ = meter.finish();
    sizes_ = sizes_of_classes(regions_);
    region_of_part_ = meter.region_of_part();
    std::set<Label> found;
    for (const RegionMeasures& region : regions_) found.insert(region.label);
    const std::vector<Label> labels(found.begin(), found.end());
    is_mask_ = says_mask(file_, labels);
    names_.resize(kLabels);
    colors_of_.resize(kLabels);
    if (is_mask_) {
      names_[255] = kSelected;
      colors_of_[255] = "#ffffff";
      return;
    }
    for (const LegendEntry& entry : named_classes(file_.classes, labels)) {
      names_[entry.index] = entry.name;
      colors_of_[entry.index] = entry.color;
    }
  }

  /// The size of a pixel by what a file says, where nothing else has said it.
  void take_resolution(const CarriedFacts& carried, const std::filesystem::path& from) {
    constexpr double kMillimeters = 1000, kAlike = 0.01;
    if (pixel_size_.is_known() || !carried.has_resolution()) return;
    const double x = carried.pixels_per_meter_x, y = carried.pixels_per_meter_y;
    if (std::abs(x - y) > kAlike * x) {
      context_.warn(from.string() +
                    ": its resolution is not the same across and down, so lengths are in pixels");
      return;
    }
    pixel_size_ = {kMillimeters / x, "mm"};
    pixel_size_from_ = from;
  }

  void read_image() {
    CountedPicture image = open_counted(*image_file_, options_.shared, context_);
    take_resolution(image.file.facts.carried, *image_file_);
    Preview preview(image.file.info, format_ != FigureFormat::kNone);
    channels_ = quoted_channels(options_.channels, options_.shared.units, codes_of(image));
    colors_ = region_colors(image, file_, options_.connectivity, region_of_part_, regions_.size(),
                            channels_, preview, options_.shared, context_);
    if (preview.wanted()) image_ = preview.thumbnail();
  }

  double length(double pixels) const { return pixel_size_.length(pixels); }
  double area(std::uint64_t pixels) const { return pixel_size_.area(pixels); }
  std::uint64_t all_pixels() const { return file_.rows->shape().pixels(); }

  void write_table() {
    std::vector<std::string> header{"region",     "class",
                                    "pixels",     "share_percent",
                                    "unit",       "area",
                                    "center_x",   "center_y",
                                    "left",       "top",
                                    "width",      "height",
                                    "perimeter",  "equivalent_diameter",
                                    "roundness",  "major_axis",
                                    "minor_axis", "orientation",
                                    "holes",      "at_edge"};
    if (image_file_) {
      add_figure_columns(channels_, header);
      header.push_back("mean_color");
    }
    CsvTable table(header, regions_.size() * 160);
    for (std::size_t r = 0; r < regions_.size(); ++r) {
      const RegionMeasures& m = regions_[r];
      std::vector<CsvField> row{std::uint64_t{r + 1},
                                names_[m.label],
                                m.pixels,
                                percent(m.pixels, all_pixels()),
                                pixel_size_.unit,
                                area(m.pixels),
                                m.center_x,
                                m.center_y,
                                std::uint64_t{m.left},
                                std::uint64_t{m.top},
                                std::uint64_t{m.width},
                                std::uint64_t{m.height},
                                length(m.perimeter),
                                length(m.equivalent_diameter),
                                m.roundness,
                                length(m.major_axis),
                                length(m.minor_axis),
                                m.orientation,
                                m.holes,
                                m.at_edge ? "yes" : "no"};
      if (image_file_) {
        add_figure_fields(colors_[r].channels, row);
        row.emplace_back(colors_[r].mean_color);
      }
      table.add(row);
    }
    table.write(results_.path(input_, "regions", "csv"));
  }

  void write_sizes() {
    CsvTable table({"class", "regions", "at_edge", "pixels", "share_percent", "unit", "area",
                    "mean_area", "median_area", "smallest_area", "largest_area"});
    for (const ClassSizes& sizes : sizes_)
      table.add({names_[sizes.label], sizes.regions, sizes.at_edge, sizes.pixels,
                 percent(sizes.pixels, all_pixels()), pixel_size_.unit, area(sizes.pixels),
                 sizes.mean() * area(1), area(sizes.median), area(sizes.smallest),
                 area(sizes.largest)});
    table.write(results_.path(input_, "sizes", "csv"));
  }

  /// What needs the whole picture of labels in memory.
  void work_whole(bool numbers, bool outlines) {
    const LabelPicture picture = read_label_picture(input_, options_.shared.max_pixels);
    if (options_.parts) part(picture);
    if (!numbers && !outlines && format_ == FigureFormat::kNone) return;
    const RegionMap map = find_regions(picture.grid, options_.connectivity);
    if (numbers) write_numbers(picture, map);
    const auto rings =
        outlines_of(map, picture.grid.width, picture.grid.height, options_.connectivity);
    if (outlines) write_outlines(picture, rings);
    if (format_ != FigureFormat::kNone) draw(picture, rings);
  }

  void part(const LabelPicture& picture) {
    parted_ = parted_classes(picture);
    if (results_.wants("parts")) write_part_counts(results_.path(input_, "parts", "csv"), parted_);
  }

  void check_numbers() const {
    if (regions_.size() > 65535)
      throw InputError(
          "has " + std::to_string(regions_.size()) + " regions, more than 16 bits can number",
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
    for (const RegionMeasures& region : regions_) labels.push_back(region.label);
    write_text_file(results_.path(input_, "outlines", "geojson"),
                    samples_text(samples_of_regions(labels, rings, names_, colors_of_),
                                 picture.grid.width, picture.grid.height));
  }

  void draw(const LabelPicture& picture, const std::vector<std::vector<Ring>>& rings) {
    std::vector<ShownRegion> shown;
    for (const std::size_t r : largest(kMostNumbered))
      shown.push_back({r + 1, regions_[r], rings[r]});
    const std::string sentence =
        shown.size() == regions_.size()
            ? "all " + std::to_string(shown.size()) + " regions; coordinates are pixels"
            : "the " + std::to_string(shown.size()) + " largest of " +
                  std::to_string(regions_.size()) + " regions; coordinates are pixels";
    const std::string name = input_.filename().string(), extension = extension_of(format_);
    const Thumbnail thumbnail = image_ ? *image_ : label_thumbnail(picture);
    Plot plot(format_);
    add_region_figure(plot, results_.path(input_, "regions.figure", extension), name, shown,
                      sentence, thumbnail);
    if (!parted_.empty())
      add_part_figure(plot, results_.path(input_, "parts.figure", extension), name, parted_,
                      thumbnail);
    draw_figures(plot, context_);
  }

  std::vector<std::size_t> in_order() const {
    std::vector<std::size_t> all(regions_.size());
    std::iota(all.begin(), all.end(), std::size_t{0});
    return all;
  }

  std::vector<std::size_t> largest(std::size_t most) const {
    std::vector<std::size_t> all = in_order();
    most = std::min(all.size(), most);
    std::partial_sort(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(most), all.end(),
                      [&](std::size_t a, std::size_t b) {
                        return regions_[a].pixels != regions_[b].pixels
                                   ? regions_[a].pixels > regions_[b].pixels
                                   : a < b;
                      });
    all.resize(most);
    return all;
  }

  Json regions_json(const std::vector<std::size_t>& numbers) const {
    Json list = Json::array();
    for (const std::size_t r : numbers) {
      const RegionMeasures& m = regions_[r];
      Json json{{"region", r + 1},
                {"class", names_[m.label]},
                {"pixels", m.pixels},
                {"percent", percent(m.pixels, all_pixels())},
                {"area", area(m.pixels)},
                {"center", {m.center_x, m.center_y}},
                {"box", {m.left, m.top, m.width, m.height}},
                {"perimeter", length(m.perimeter)},
                {"equivalent_diameter", length(m.equivalent_diameter)},
                {"roundness", m.roundness},
                {"major_axis", length(m.major_axis)},
                {"minor_axis", length(m.minor_axis)},
                {"orientation", m.orientation},
                {"holes", m.holes},
                {"at_edge", m.at_edge}};
      if (image_file_) {
        json["mean_color"] = colors_[r].mean_color;
        if (!channels_.empty()) json["channels"] = figures_json(channels_, colors_[r].channels);
      }
      list.push_back(std::move(json));
    }
    return list;
  }

  Json report() const {
    Json json{{"file", input_.string()},
              {"kind", is_mask_ ? "mask" : "class map"},
              {"unit", pixel_size_.unit},
              {"count", regions_.size()},
              {"classes", Json::array()}};
    if (!pixel_size_from_.empty())
      json["pixel_size"] = {{"side", pixel_size_.side}, {"from", pixel_size_from_.string()}};
    for (const ClassSizes& sizes : sizes_) {
      json["classes"].push_back({{"name", names_[sizes.label]},
                                 {"color", is_mask_ ? kSelectedColor : colors_of_[sizes.label]},
                                 {"count", sizes.regions},
                                 {"at_edge", sizes.at_edge},
                                 {"pixels", sizes.pixels},
                                 {"percent", percent(sizes.pixels, all_pixels())},
                                 {"area", area(sizes.pixels)},
                                 {"mean", sizes.mean() * area(1)},
                                 {"median", area(sizes.median)},
                                 {"smallest", area(sizes.smallest)},
                                 {"largest", area(sizes.largest)}});
      for (const ShownParts& one : parted_)
        if (one.name == names_[sizes.label]) json["classes"].back()["parts"] = parts_json(one);
    }
    json["largest_regions"] = regions_json(largest(kMostInSummary));
    return json;
  }

  std::filesystem::path input_;
  const std::filesystem::path* image_file_;
  const MeasureOptions& options_;
  const Context& context_;
  Results& results_;
  FigureFormat format_;
  LabelFile file_;
  PixelSize pixel_size_;
  std::filesystem::path pixel_size_from_;  // the file that says it; empty: the user, or nobody
  bool is_mask_ = false;
  std::vector<std::string> names_, colors_of_;  // by number
  std::vector<RegionMeasures> regions_;
  std::vector<ClassSizes> sizes_;
  std::vector<std::uint32_t> region_of_part_;
  std::vector<ShownParts> parted_;
  std::vector<Channel> channels_;  // of the image, in the units asked for
  std::vector<RegionColors> colors_;
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
      {"parts",
       "<stem>.parts.csv: how many regions there are for each H of the step part of tidy; "
       "of several pictures also parts.csv",
       "parts"},
      {"numbers", "<stem>.numbers.png: the number of its region at each pixel", "numbers"},
      {"figure",
       "<stem>.regions.figure.png: outlines, boxes and numbers on the picture; "
       "<stem>.parts.figure.png with --parts; of several pictures "
       "also counts.figure.png: how many regions each has"}};
  return kinds;
}

Json run_measure(const MeasureOptions& options, const Context& context) {
  Results results(options.shared, context, measure_results());
  const FigureFormats figures = figure_formats(results, options.shared, context);
  Json summary = summary_frame("measure");
  std::optional<PartnerFiles> images;
  if (options.image) images.emplace(*options.image, is_picture_name);
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    const std::filesystem::path* const image = images ? &images->of(input) : nullptr;
    return MeasureJob(input, image, options, its_context, results, figures.of_each).run();
  };
  for_each_input(options.shared, context, summary, do_one);
  end_with_report(summary, figures.of_all, report_region_counts, results, context);
  return summary;
}

}  // namespace chalcedony
