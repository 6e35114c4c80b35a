#include "job/look/diff.h"

#include <algorithm>
#include <cstring>
#include <memory>
#include <set>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "core/pixel/side_by_side.h"
#include "core/stats/difference_tally.h"
#include "figure/diff_figure.h"
#include "figure/ranges_figure.h"
#include "io/picture/create_picture.h"
#include "io/picture/picture_writer.h"
#include "io/text/csv.h"
#include "job/look/told_classes.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"
#include "job/picture/same_size.h"
#include "job/picture/short_names.h"
#include "job/repeat/each_input.h"
#include "job/run/input_list.h"
#include "job/run/partner_files.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

/// One of the two pictures.
struct DiffedPicture {
  DiffedPicture(CountedPicture opened, const Space& space, bool with_preview)
      : picture(std::move(opened)),
        plan(errors_at(picture.file.path.string(),
                       [&] { return ChannelPlan(picture.file.info, channels_of(space)); })),
        preview(picture.file.info, with_preview) {}

  CountedPicture picture;
  ChannelPlan plan;
  Preview preview;
};

/// Reads the colors of one of them. One for each thread.
class ColorReader {
 public:
  explicit ColorReader(DiffedPicture& of)
      : reader_(of.picture.file.info, of.picture.counting),
        evaluator_(of.plan),
        collector_(of.preview) {}

  const Block& read(const std::byte* stored, std::uint64_t first_pixel, std::size_t size) {
    const Block& block = reader_.read(stored, first_pixel, size);
    evaluator_.evaluate(block);
    collector_.add(block);
    return block;
  }
  ConstPlanes colors() const { return evaluator_.channels(0); }

 private:
  BlockReader reader_;
  ChannelEvaluator evaluator_;
  Preview::Collector collector_;
};

struct DiffBand {
  DifferenceTally found;
  EncodedRows encoded;
};

class DiffJob {
 public:
  DiffJob(const std::filesystem::path& first, const std::filesystem::path& second,
          const DiffOptions& options, const Context& context, Results& results, FigureFormat format)
      : options_(options),
        context_(context),
        results_(results),
        format_(format),
        space_(space_of(options.formula)),
        first_(open_counted(first, options.shared, context), space_,
               format_ != FigureFormat::kNone),
        second_(open_counted(second, options.shared, context), space_,
                format_ != FigureFormat::kNone),
        map_(empty_preview(shape(), format_ != FigureFormat::kNone)),
        found_(steps(), options.tolerance) {
    refuse_classes();
    check_sizes();
    if (results.wants("difference"))
      file_ = create_picture(results.path(first, "difference", "tif"),
                             label_spec(shape(), SampleType::kF32));
  }

  Json run() {
    RowSources sources;
    for (DiffedPicture* each : {&first_, &second_})
      sources.push_back(std::move(each->picture.file.rows));
    SideBySide rows(std::move(sources));
    travel(
        rows, road_for(first_.picture, options_.shared, context_),
        [&] { return Worker(*this, rows); }, [&](DiffBand&& band) { take(std::move(band)); });
    if (found_.counted() == 0)
      throw InputError("no pixel counts in both pictures", "choose another --region or --within",
                       first_path().string());
    if (file_) file_->finish();
    const DistanceSummary s = found_.summary();
    const double above = percent(found_.above(), found_.counted());
    if (results_.wants("statistics")) write_statistics(s, above);
    if (draws()) draw(s, above);
    return {{"file", first_path().string()},
            {"first", first_path().string()},
            {"second", second_path().string()},
            {"formula", options_.formula_name},
            {"counted", found_.counted()},
            {"mean", s.mean},
            {"root_mean_square", s.root_mean_square},
            {"median", s.median},
            {"percentile_95", s.percentile_95},
            {"largest", s.largest},
            {"largest_at",
             {found_.largest_pixel() % shape().width, found_.largest_pixel() / shape().width}},
            {"tolerance", options_.tolerance},
            {"above_tolerance", found_.above()},
            {"above_tolerance_percent", above}};
  }

 private:
  const std::filesystem::path& first_path() const { return first_.picture.file.path; }
  const std::filesystem::path& second_path() const { return second_.picture.file.path; }
  const RasterShape& shape() const { return first_.picture.shape(); }
  bool draws() const { return format_ != FigureFormat::kNone; }
  /// How finely quantiles are told.
  double steps() const { return options_.formula == DifferenceFormula::kOklab ? 10000 : 100; }

  /// Their colors only stand for classes, and what is of no class is transparent.
  void refuse_classes() const {
    for (const DiffedPicture* each : {&first_, &second_})
      if (lists_classes(each->picture))
        throw InputError("is a class map, and its colors only stand for classes",
                         "hold maps against each other with 'changes'",
                         each->picture.file.path.string());
  }

  void check_sizes() const {
    require_same_size(second_path(), second_.picture.shape(), first_.picture.name() + " is",
                      shape(), "give two pictures of one size");
  }

  /// One for each thread.
  class Worker {
   public:
    Worker(DiffJob& job, const SideBySide& rows)
        : job_(&job),
          second_part_(rows.part(1)),
          first_(job.first_),
          second_(job.second_),
          differences_(1) {}

    DiffBand operator()(const Band& band) {
      DiffBand out{DifferenceTally(job_->steps(), job_->options_.tolerance), {}};
      const std::uint32_t width = job_->shape().width;
      std::vector<std::byte> samples(job_->file_ ? width * band.rows() * sizeof(float) : 0);
      for (std::uint32_t r = 0; r < band.rows(); ++r) {
        const std::uint32_t y = band.first_row() + r;
        for (std::uint32_t x = 0; x < width; x += kBlockPixels) {
          const std::size_t n = std::min<std::size_t>(kBlockPixels, width - x);
          compare(band.row(y), x, std::uint64_t{y} * width + x, n, out.found);
          if (job_->file_)
            std::memcpy(samples.data() + (std::size_t{r} * width + x) * sizeof(float),
                        differences_.plane(0), n * sizeof(float));
        }
      }
      if (job_->file_)
        out.encoded = job_->file_->encode(band.first_row(), band.rows(), std::move(samples));
      return out;
    }

   private:
    /// The differences of n pixels of a row from column x on; NaN where one does not count.
    void compare(const std::byte* row, std::uint32_t x, std::uint64_t first_pixel, std::size_t n,
                 DifferenceTally& found) {
      const std::byte* const second_row = row + second_part_;
      const Block& a = first_.read(row + x * pixel_bytes(job_->first_), first_pixel, n);
      const Block& b = second_.read(second_row + x * pixel_bytes(job_->second_), first_pixel, n);
      float* const out = differences_.plane(0);
      differences(job_->options_.formula, first_.colors(), second_.colors(), n, out);
      leave_out_uncounted(a, b, out);
      found.add(out, n, first_pixel);
      if (job_->draws()) job_->collect(a, out, map_);
    }

    static std::size_t pixel_bytes(const DiffedPicture& of) {
      return of.picture.shape().pixel_bytes();
    }

    DiffJob* job_;
    std::size_t second_part_;  // where the row of the second picture begins
    ColorReader first_, second_;
    PlaneBuffer differences_;
    PlaneBuffer map_{1};
  };

  /// Bands come in order, so that sums do not depend on the number of threads.
  void take(DiffBand&& band) {
    found_ += band.found;
    if (file_) file_->append(band.encoded);
  }

  /// Differences as gray, so that cells hold their mean.
  void collect(const Block& of, const float* differences, PlaneBuffer& gray) {
    Block block;  // without the alpha of the picture
    block.picture_width = of.picture_width;
    block.first_pixel = of.first_pixel;
    block.size = of.size;
    float* const plane = gray.plane(0);
    differences_as_gray(differences, block.size, shown_most(), plane);
    map_.local().add(block, {plane, plane, plane});
  }

  /// The difference that is shown as the end of the color scale.
  double shown_most() const {
    return 4 * (options_.tolerance > 0 ? options_.tolerance : usual_tolerance(options_.formula));
  }

  void write_statistics(const DistanceSummary& s, double above) {
    CsvTable table({"to", "formula", "pixels", "mean", "root_mean_square", "median",
                    "percentile_95", "largest", "tolerance", "above_tolerance_percent"});
    table.add({second_path().string(), options_.formula_name, found_.counted(), s.mean,
               s.root_mean_square, s.median, s.percentile_95, s.largest, options_.tolerance,
               above});
    table.write(results_.path(first_path(), "difference", "csv"));
  }

  void draw(const DistanceSummary& s, double above) {
    const std::vector<std::string> names = short_names({first_path(), second_path()});
    Plot plot(format_);
    add_diff_figure(plot, results_.path(first_path(), "difference.figure", extension_of(format_)),
                    {names[0], names[1]}, first_.preview.thumbnail(), second_.preview.thumbnail(),
                    merged_thumbnail(map_), shown_most(), options_.formula_name,
                    {s.mean, s.percentile_95, above, options_.tolerance});
    draw_figures(plot, context_);
  }

  const DiffOptions& options_;
  const Context& context_;
  Results& results_;
  FigureFormat format_;
  const Space& space_;
  DiffedPicture first_, second_;
  Tallies<ThumbnailSums> map_;
  std::unique_ptr<PictureWriter> file_;
  DifferenceTally found_;
};

/// What the pictures are held against, as a title goes on.
std::string from_what(const Json& pictures) {
  std::set<std::string> others;
  for (const Json& picture : pictures) others.insert(picture["second"].get<std::string>());
  return others.size() == 1 ? " from " + *others.begin() : ", each from its own";
}

}  // namespace

void report_differences(Json& summary, Plot& plot, Results& results) {
  const Json& pictures = summary["inputs"];
  if (pictures.size() < 2 || plot.format() == FigureFormat::kNone) return;
  const auto formula = pictures[0]["formula"].get<std::string>();
  PictureRanges ranges;
  ranges.title =
      "Differences of " + std::to_string(pictures.size()) + " pictures" + from_what(pictures);
  ranges.subtitle = "bars: what 95 % of the pixels do not exceed; dots: the median";
  ranges.axis = "difference by " + formula;
  ranges.limit = pictures[0]["tolerance"].get<double>();
  if (*ranges.limit > 0) {
    ranges.subtitle += "; dashed: the tolerance";
  } else {
    ranges.limit.reset();
  }
  ranges.kinds.push_back({.name = "", .color = kOneKindColor});
  std::vector<std::filesystem::path> files;
  for (const Json& picture : pictures) {
    files.push_back(picture["first"].get<std::string>());
    ranges.of.push_back(
        {ValueRange{0, picture["median"].get<double>(), picture["percentile_95"].get<double>()}});
  }
  ranges.pictures = short_names(files);
  add_ranges_figure(plot, results.path("difference.figure." + extension_of(plot.format())), ranges);
}

double usual_tolerance(DifferenceFormula formula) {
  return formula == DifferenceFormula::kOklab ? 0.03 : 3;
}

const std::vector<ResultKind>& diff_results() {
  static const std::vector<ResultKind> kinds{
      {"difference", "<stem>.difference.tif: the difference of every pixel, as float"},
      {"statistics",
       "<stem>.difference.csv: mean, median, 95 %, largest, share above; of several pictures also "
       "difference.csv"},
      {"figure",
       "<stem>.difference.figure.png: both pictures and the map of differences; of several "
       "pictures also difference.figure.png: how far each is from its own"}};
  return kinds;
}

Json run_diff(const DiffOptions& options, const Context& context) {
  Results results(options.shared, context, diff_results(),
                  options.to ? ResultNames::kPictures : ResultNames::kRun);
  SharedOptions firsts = options.shared;
  if (!options.to) firsts.inputs.resize(1);
  const PartnerFiles others(options.to.value_or(options.shared.inputs.back()), is_picture_name, "",
                            NameCuts::kPoints);
  const FigureFormats figures = figure_formats(results, firsts, context);
  Json summary = summary_frame("diff");
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    const std::filesystem::path& other = others.of(input, *its_context.ledger);
    return DiffJob(input, other, options, its_context, results, figures.of_each).run();
  };
  for_each_input(firsts, context, summary, do_one);
  end_with_report(summary, figures.of_all, report_differences, results, context);
  return summary;
}

}  // namespace chalcedony
