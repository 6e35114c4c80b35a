#include "job/look/diff.h"

#include <algorithm>
#include <cstring>
#include <memory>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "core/pixel/side_by_side.h"
#include "core/stats/difference_tally.h"
#include "figure/diff_figure.h"
#include "io/picture/create_picture.h"
#include "io/picture/picture_writer.h"
#include "io/text/csv.h"
#include "job/look/told_classes.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"
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
  DiffJob(const DiffOptions& options, const Context& context, Results& results)
      : options_(options),
        context_(context),
        results_(results),
        format_(figure_formats(results, options.shared, context).of_each),
        space_(space_of(options.formula)),
        first_(open_counted(options.shared.inputs[0], options.shared, context), space_,
               format_ != FigureFormat::kNone),
        second_(open_counted(options.shared.inputs[1], options.shared, context), space_,
                format_ != FigureFormat::kNone),
        map_(empty_preview(shape(), format_ != FigureFormat::kNone)),
        found_(steps(), options.tolerance) {
    refuse_classes();
    check_sizes();
    if (results.wants("difference"))
      file_ = create_picture(results.path(options.shared.inputs[0], "difference", "tif"),
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
                       first_.picture.file.path.string());
    if (file_) file_->finish();
    const DistanceSummary s = found_.summary();
    const double above = percent(found_.above(), found_.counted());
    if (results_.wants("statistics")) write_statistics(s, above);
    if (draws()) draw(s, above);
    return {{"first", first_.picture.file.path.string()},
            {"second", options_.shared.inputs[1].string()},
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
    const RasterShape &a = shape(), &b = second_.picture.shape();
    if (a.width == b.width && a.height == b.height) return;
    throw InputError("is " + b.size_text() + ", " + first_.picture.name() + " is " + a.size_text(),
                     "give two pictures of one size", options_.shared.inputs[1].string());
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
    CsvTable table({"measure", "value"});
    table.add({"pixels", found_.counted()});
    table.add({"mean", s.mean});
    table.add({"root_mean_square", s.root_mean_square});
    table.add({"median", s.median});
    table.add({"percentile_95", s.percentile_95});
    table.add({"largest", s.largest});
    table.add({"tolerance", options_.tolerance});
    table.add({"above_tolerance_percent", above});
    table.write(results_.path(options_.shared.inputs[0], "difference", "csv"));
  }

  void draw(const DistanceSummary& s, double above) {
    Plot plot(format_);
    add_diff_figure(
        plot, results_.path(options_.shared.inputs[0], "difference.figure", extension_of(format_)),
        {first_.picture.name(), second_.picture.name()}, first_.preview.thumbnail(),
        second_.preview.thumbnail(), merged_thumbnail(map_), shown_most(), options_.formula_name,
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

}  // namespace

double usual_tolerance(DifferenceFormula formula) {
  return formula == DifferenceFormula::kOklab ? 0.03 : 3;
}

const std::vector<ResultKind>& diff_results() {
  static const std::vector<ResultKind> kinds{
      {"difference", "<stem>.difference.tif: the difference of every pixel, as float"},
      {"statistics", "<stem>.difference.csv: mean, median, 95 %, largest, share above"},
      {"figure", "<stem>.difference.figure.png: both pictures and the map of differences"}};
  return kinds;
}

Json run_diff(const DiffOptions& options, const Context& context) {
  Results results(options.shared, context, diff_results(), ResultNames::kRun);
  Json summary = summary_frame("diff");
  summary["inputs"].push_back(DiffJob(options, context, results).run());
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
