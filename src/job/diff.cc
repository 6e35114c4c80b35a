#include "job/diff.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <limits>
#include <memory>

#include "core/color/channel_plan.h"
#include "core/error.h"
#include "core/stats/distance_sums.h"
#include "figure/diff_figure.h"
#include "io/csv.h"
#include "io/picture_writer.h"
#include "job/inputs.h"
#include "job/preview.h"

namespace chalcedony {
namespace {

/// The colors of a band of the first picture.
struct ColorBand {
  std::uint32_t first_row = 0, rows = 0;
  std::array<std::vector<float>, 3> planes;
  std::vector<std::uint8_t> counted;
};

/// Rows of the second picture, read as those of the first come.
class SecondPicture {
 public:
  SecondPicture(CountedPicture picture, const Space& space, bool preview)
      : picture_(std::move(picture)),
        plan_(picture_.file.info, channels_of(space)),
        preview_(picture_.file.info, preview),
        reader_(picture_.file.info, picture_.counting),
        evaluator_(plan_),
        collector_(preview_) {}

  const RasterShape& shape() const { return picture_.shape(); }
  std::string name() const { return picture_.name(); }
  Thumbnail thumbnail() { return preview_.thumbnail(); }

  /// The colors of the next pixels, and which of them count.
  const Block& next(std::size_t size) {
    stored_.resize(size * shape().pixel_bytes());
    std::size_t filled = 0;
    while (filled < stored_.size()) {
      if (left_ == 0) {
        row_.resize(shape().row_bytes());
        picture_.file.rows->read_rows(1, row_.data());
        left_ = row_.size();
      }
      const std::size_t take = std::min(left_, stored_.size() - filled);
      std::memcpy(stored_.data() + filled, row_.data() + (row_.size() - left_), take);
      filled += take;
      left_ -= take;
    }
    const Block& block = reader_.read(stored_.data(), next_pixel_, size);
    evaluator_.evaluate(block);
    collector_.add(block);
    next_pixel_ += size;
    return block;
  }
  ConstPlanes colors() const { return evaluator_.channels(0); }

 private:
  CountedPicture picture_;
  ChannelPlan plan_;
  Preview preview_;
  BlockReader reader_;
  ChannelEvaluator evaluator_;
  Preview::Collector collector_;
  std::vector<std::byte> row_, stored_;
  std::size_t left_ = 0;  // bytes of the row not used yet
  std::uint64_t next_pixel_ = 0;
};

class DiffJob {
 public:
  DiffJob(const DiffOptions& options, const Context& context, Results& results)
      : options_(options),
        context_(context),
        results_(results),
        format_(results.wants("figure") ? settle_figures(options.shared, context)
                                        : FigureFormat::kNone),
        space_(space_of(options.formula)),
        first_(open_counted(options.shared.inputs[0], options.shared, context)),
        second_(open_counted(options.shared.inputs[1], options.shared, context), space_,
                format_ != FigureFormat::kNone),
        plan_(first_.file.info, channels_of(space_)),
        preview_(first_.file.info, format_ != FigureFormat::kNone),
        map_(first_.shape().width, preview_.wanted() ? first_.shape().height : 1, kPreviewWidth,
             kPreviewHeight),
        sums_(options.formula == DifferenceFormula::kOklab ? 1e-4 : 1e-2) {
    check_sizes();
    if (results.wants("difference"))
      file_ = create_picture(results.path(options.shared.inputs[0], "difference", "tif"),
                             label_spec(first_.shape(), SampleType::kF32));
  }

  Json run() {
    const auto make_worker = [&] {
      return [&, reader = BlockReader(first_.file.info, first_.counting),
              evaluator = ChannelEvaluator(plan_),
              collector = Preview::Collector(preview_)](const Band& band) mutable {
        return colors_of(band, reader, evaluator, collector);
      };
    };
    travel(*first_.file.rows, road_for(first_, options_.shared, context_), make_worker,
           [&](ColorBand&& band) { compare(band); });
    if (counted_ == 0)
      throw InputError("no pixel counts in both pictures", "choose another --region or --within",
                       first_.file.path.string());
    if (file_) file_->finish();
    const DistanceSummary s = sums_.summary();
    const double above = percent(above_, counted_);
    if (results_.wants("statistics")) write_statistics(s, above);
    if (preview_.wanted()) draw(s, above);
    return {{"first", first_.file.path.string()},
            {"second", options_.shared.inputs[1].string()},
            {"formula", options_.formula_name},
            {"counted", counted_},
            {"mean", s.mean},
            {"root_mean_square", s.root_mean_square},
            {"median", s.median},
            {"percentile_95", s.percentile_95},
            {"largest", s.largest},
            {"largest_at", {largest_x_, largest_y_}},
            {"tolerance", options_.tolerance},
            {"above_tolerance", above_},
            {"above_tolerance_percent", above}};
  }

 private:
  void check_sizes() const {
    const RasterShape &a = first_.shape(), &b = second_.shape();
    if (a.width == b.width && a.height == b.height) return;
    throw InputError("is " + b.size_text() + ", " + first_.name() + " is " + a.size_text(),
                     "give two pictures of one size", options_.shared.inputs[1].string());
  }

  static ColorBand colors_of(const Band& band, BlockReader& reader, ChannelEvaluator& evaluator,
                             Preview::Collector& collector) {
    ColorBand out;
    out.first_row = band.first_row();
    out.rows = band.rows();
    const std::size_t pixels = std::size_t{band.rows()} * band.shape().width;
    for (auto& plane : out.planes) plane.resize(pixels + kPlanePadding);
    out.counted.resize(pixels);
    std::size_t at = 0;
    reader.for_each_block(band, [&](const Block& block) {
      evaluator.evaluate(block);
      collector.add(block);
      for (std::size_t c = 0; c < 3; ++c)
        std::copy_n(evaluator.channel(c), block.size, out.planes[c].data() + at);
      for (std::size_t i = 0; i < block.size; ++i) out.counted[at + i] = block.counts(i);
      at += block.size;
    });
    return out;
  }

  /// Bands come in order, as the second picture's rows do.
  void compare(const ColorBand& band) {
    const std::uint32_t width = first_.shape().width;
    const std::size_t pixels = std::size_t{band.rows} * width;
    std::vector<float> all(pixels + kPlanePadding);
    const std::uint64_t first_pixel = std::uint64_t{band.first_row} * width;
    for (std::size_t at = 0; at < pixels; at += kBlockPixels) {
      const std::size_t n = std::min(kBlockPixels, pixels - at);
      const Block& block = second_.next(n);
      float* const out = all.data() + at;
      differences(
          options_.formula,
          {band.planes[0].data() + at, band.planes[1].data() + at, band.planes[2].data() + at},
          second_.colors(), n, out);
      for (std::size_t i = 0; i < n; ++i) {
        const bool counts = band.counted[at + i] && block.counts(i) && std::isfinite(out[i]);
        if (counts) {
          add(static_cast<double>(out[i]), first_pixel + at + i);
        } else {
          out[i] = std::numeric_limits<float>::quiet_NaN();
        }
      }
    }
    if (preview_.wanted()) collect(all, first_pixel, pixels);
    if (!file_) return;
    std::vector<std::byte> bytes(pixels * sizeof(float));
    std::memcpy(bytes.data(), all.data(), bytes.size());
    file_->append(file_->encode(band.first_row, band.rows, std::move(bytes)));
  }

  void add(double difference, std::uint64_t pixel) {
    ++counted_;
    sums_.add(difference);
    above_ += difference > options_.tolerance;
    if (difference <= largest_) return;
    largest_ = difference;
    largest_x_ = pixel % first_.shape().width;
    largest_y_ = pixel / first_.shape().width;
  }

  /// Differences as gray, so that cells hold their mean.
  void collect(const std::vector<float>& all, std::uint64_t first_pixel, std::size_t pixels) {
    Block block;
    block.picture_width = first_.shape().width;
    PlaneBuffer plane(1);
    for (std::size_t at = 0; at < pixels; at += kBlockPixels) {
      block.first_pixel = first_pixel + at;
      block.size = std::min(kBlockPixels, pixels - at);
      for (std::size_t i = 0; i < block.size; ++i) {
        const float part = all[at + i] / static_cast<float>(shown_most());
        plane.plane(0)[i] = std::isfinite(part) ? 255 * std::min(part, 1.0f) : 0.0f;
      }
      const float* const gray = plane.plane(0);
      map_.add(block, {gray, gray, gray});
    }
  }

  /// The difference that is shown as the end of the color scale.
  double shown_most() const { return 4 * options_.tolerance; }

  void write_statistics(const DistanceSummary& s, double above) {
    CsvTable table({"measure", "value"});
    table.add({"pixels", counted_});
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
        {first_.name(), second_.name()}, preview_.thumbnail(), second_.thumbnail(),
        map_.thumbnail(), shown_most(), options_.formula_name,
        {s.mean, s.percentile_95, above, options_.tolerance});
    draw_figures(plot, context_);
  }

  const DiffOptions& options_;
  const Context& context_;
  Results& results_;
  FigureFormat format_;
  const Space& space_;
  CountedPicture first_;
  SecondPicture second_;
  ChannelPlan plan_;
  Preview preview_;
  ThumbnailSums map_;
  std::unique_ptr<PictureWriter> file_;
  DistanceSums sums_;
  std::uint64_t counted_ = 0, above_ = 0, largest_x_ = 0, largest_y_ = 0;
  double largest_ = -1;
};

}  // namespace

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
