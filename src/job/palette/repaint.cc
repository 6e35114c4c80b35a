#include "job/palette/repaint.h"

#include <algorithm>
#include <array>
#include <memory>
#include <span>

#include "core/channel/channel_plan.h"
#include "core/palette/block_painter.h"
#include "core/palette/class_painter.h"
#include "core/palette/error_diffusion.h"
#include "core/palette/paint_tally.h"
#include "core/pixel/flags.h"
#include "core/pixel/uncounted.h"
#include "io/picture/create_picture.h"
#include "io/picture/picture_writer.h"
#include "job/picture/preview.h"

namespace chalcedony {
namespace {

/// What a thread makes of a band. With dithering, the rows must come in order, so that only their
/// values are made here.
struct RepaintBand {
  std::uint32_t first_row = 0, rows = 0;
  std::vector<std::uint8_t> numbers;              // of the color of each pixel, 0 for none
  std::array<std::vector<float>, 3> lab, linear;  // for dithering
  std::vector<std::uint8_t> counted;              // for dithering
  PaintTally tally;
  EncodedRows encoded;
  Excluded excluded;
};

class RepaintJob {
 public:
  RepaintJob(CountedPicture& picture, const RepaintOptions& repaint, const SharedOptions& options,
             const Context& context)
      : picture_(picture),
        repaint_(repaint),
        options_(options),
        context_(context),
        plan_(picture.file.info, planned_channels(repaint)),
        preview_(picture.file.info, repaint.previews),
        repainted_preview_(picture.shape().width, repaint.previews ? picture.shape().height : 1,
                           kPreviewWidth, kPreviewHeight),
        repainted_(repaint.palette, {&spaces::kSrgb, {255, 255, 255}}),
        error_(repaint.palette),
        errors_(kBlockPixels + kPlanePadding),
        tally_(repaint.palette.size()) {
    PictureSpec spec = indexed_spec(picture.shape(), repaint.palette, !all_pixels_count(picture));
    spec.carried = picture.file.facts.carried;
    if (!repaint.file.empty()) file_ = create_picture(repaint.file, spec);
    if (!repaint.dither && ColorMemo::pays(picture.file.info))
      known_ = std::make_unique<PaintByColor>();
    if (repaint.dither) diffusion_.emplace(picture.shape().width, repaint.palette, repaint.formula);
  }

  Repainted run() {
    travel(
        *picture_.file.rows, road_for(picture_, options_, context_),
        [this] { return Worker(*this); }, [this](RepaintBand&& band) { take(std::move(band)); });
    require_counted(picture_.shape().pixels() - excluded_.total(), picture_);
    if (file_) file_->finish();
    Repainted out{excluded_, tally_.take_counts(), tally_.errors(), {}, {}};
    if (!repaint_.previews) return out;
    out.picture = preview_.thumbnail();
    out.repainted = repainted_preview_.thumbnail();
    return out;
  }

 private:
  static std::vector<Channel> planned_channels(const RepaintOptions& repaint) {
    if (!repaint.dither) return BlockPainter::channels(repaint.formula);
    std::vector<Channel> channels = channels_of(spaces::kLab);
    for (const Channel& channel : channels_of(spaces::kSrgbLinear)) channels.push_back(channel);
    return channels;
  }

  std::uint32_t width() const { return picture_.shape().width; }

  /// One for each thread.
  class Worker {
   public:
    explicit Worker(RepaintJob& job)
        : job_(&job),
          reader_(job.picture_.file.info, job.picture_.counting),
          errors_(kBlockPixels + kPlanePadding),
          collector_(job.preview_) {
      if (job.repaint_.dither) {
        channels_.emplace(job.plan_);
      } else {
        painter_.emplace(job.plan_, job.repaint_.palette, job.repaint_.formula, job.known_.get());
      }
    }

    RepaintBand operator()(const Band& band) {
      RepaintBand out;
      out.first_row = band.first_row();
      out.rows = band.rows();
      const std::size_t pixels = std::size_t{band.rows()} * job_->width();
      out.numbers.resize(pixels + kPlanePadding);
      if (job_->repaint_.dither) {
        for (auto* planes : {&out.lab, &out.linear})
          for (auto& plane : *planes) plane.resize(pixels + kPlanePadding);
        out.counted.resize(pixels);
      } else {
        out.tally = PaintTally(job_->repaint_.palette.size());
      }
      std::size_t at = 0;
      reader_.for_each_block(band, [&](const Block& block) {
        collector_.add(block);
        painter_ ? paint(block, at, out) : keep(block, at, out);
        at += block.size;
      });
      out.excluded = reader_.take_excluded();
      if (!job_->repaint_.dither) job_->encode(out);
      return out;
    }

   private:
    void paint(const Block& block, std::size_t at, RepaintBand& out) {
      std::uint8_t* const numbers = out.numbers.data() + at;
      painter_->paint(block, numbers, errors_.data());
      clear_uncounted(block, numbers);
      out.tally.add(numbers, errors_.data(), block.size);
    }

    void keep(const Block& block, std::size_t at, RepaintBand& out) {
      channels_->evaluate(block);
      for (std::size_t c = 0; c < 3; ++c) {
        std::copy_n(channels_->channel(c), block.size, out.lab[c].data() + at);
        std::copy_n(channels_->channel(3 + c), block.size, out.linear[c].data() + at);
      }
      copy_counted(block, out.counted.data() + at);
    }

    RepaintJob* job_;
    BlockReader reader_;
    std::optional<ChannelEvaluator> channels_;  // with dithering
    std::optional<BlockPainter> painter_;       // without
    std::vector<float> errors_;                 // of a Block's pixels
    Preview::Collector collector_;
  };

  void encode(RepaintBand& band) const {
    if (!file_) return;
    const auto numbers = std::as_bytes(std::span(band.numbers));
    const std::size_t pixels = std::size_t{band.rows} * width();
    band.encoded =
        file_->encode(band.first_row, band.rows,
                      {numbers.begin(), numbers.begin() + static_cast<std::ptrdiff_t>(pixels)});
  }

  void dither(RepaintBand& band) {
    for (std::uint32_t y = 0; y < band.rows; ++y) {
      const std::size_t at = std::size_t{y} * width();
      diffusion_->next_row(
          {band.linear[0].data() + at, band.linear[1].data() + at, band.linear[2].data() + at},
          band.counted.data() + at, band.numbers.data() + at);
    }
    const std::size_t pixels = std::size_t{band.rows} * width();
    for (std::size_t at = 0; at < pixels; at += kBlockPixels) {
      const std::size_t size = std::min(kBlockPixels, pixels - at);
      const std::uint8_t* const numbers = band.numbers.data() + at;
      error_.measure({band.lab[0].data() + at, band.lab[1].data() + at, band.lab[2].data() + at},
                     numbers, size, errors_.data());
      tally_.add(numbers, errors_.data(), size);
    }
    encode(band);
  }

  /// Bands come in order, so that sums do not depend on the number of threads.
  void take(RepaintBand&& band) {
    if (diffusion_) {
      dither(band);
    } else {
      tally_ += band.tally;
    }
    excluded_ += band.excluded;
    if (file_) file_->append(band.encoded);
    if (repaint_.previews) collect(band);
  }

  void collect(const RepaintBand& band) {
    Block block;
    block.picture_width = width();
    block.first_pixel = std::uint64_t{band.first_row} * width();
    const std::size_t pixels = std::size_t{band.rows} * width();
    for (std::size_t at = 0; at < pixels; at += kBlockPixels) {
      block.size = std::min(kBlockPixels, pixels - at);
      repainted_preview_.add(block, repainted_.paint(band.numbers.data() + at, block.size));
      block.first_pixel += block.size;
    }
  }

  CountedPicture& picture_;
  const RepaintOptions& repaint_;
  const SharedOptions& options_;
  const Context& context_;
  ChannelPlan plan_;
  Preview preview_;
  ThumbnailSums repainted_preview_;
  ClassPainter repainted_;
  PaintError error_;           // of bands that are dithered
  std::vector<float> errors_;  // likewise
  std::unique_ptr<PictureWriter> file_;
  std::unique_ptr<PaintByColor> known_;
  std::optional<ErrorDiffusion> diffusion_;
  PaintTally tally_;
  Excluded excluded_;
};

}  // namespace

Repainted repaint(CountedPicture& picture, const RepaintOptions& repaint,
                  const SharedOptions& options, const Context& context) {
  return RepaintJob(picture, repaint, options, context).run();
}

}  // namespace chalcedony
