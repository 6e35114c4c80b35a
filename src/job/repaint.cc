#include "job/repaint.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstring>
#include <memory>

#include "core/color/channel_plan.h"
#include "core/color/ciede2000.h"
#include "core/palette/error_diffusion.h"
#include "io/picture_writer.h"
#include "job/preview.h"

namespace chalcedony {
namespace {

/// What a thread makes of a band. With dithering, the rows must come in order, so that only their
/// values are made here.
struct RepaintBand {
  std::uint32_t first_row = 0, rows = 0;
  std::vector<std::uint8_t> numbers;              // of the color of each pixel, 0 for none
  std::array<std::vector<float>, 3> lab, linear;  // for dithering
  std::vector<std::uint8_t> counted;              // for dithering
  std::vector<float> errors;                      // of each pixel
  EncodedRows encoded;
  Excluded excluded;
};

PictureSpec repainted_spec(const CountedPicture& picture) {
  PictureSpec spec;
  spec.alpha = !all_pixels_count(picture);
  spec.shape = {picture.shape().width, picture.shape().height, spec.alpha ? 4u : 3u,
                SampleType::kU8};
  return spec;
}

class RepaintJob {
 public:
  RepaintJob(CountedPicture& picture, const RepaintOptions& repaint, const SharedOptions& options,
             const Context& context)
      : picture_(picture),
        repaint_(repaint),
        options_(options),
        context_(context),
        plan_(picture.file.info, planned_channels(repaint)),
        spec_(repainted_spec(picture)),
        preview_(picture.file.info, repaint.previews),
        repainted_preview_(picture.shape().width, repaint.previews ? picture.shape().height : 1,
                           kPreviewWidth, kPreviewHeight),
        painted_(3) {
    for (const Color& color : repaint.palette) {
      labs_.push_back(color.in(spaces::kLab));
      srgb_.push_back(color.in(spaces::kSrgb));
      auto& bytes = bytes_.emplace_back();
      for (std::size_t c = 0; c < 3; ++c)
        bytes[c] = static_cast<std::byte>(std::lround(std::clamp(srgb_.back()[c], 0.0, 255.0)));
      bytes[3] = std::byte{255};
    }
    counts_.resize(repaint.palette.size());
    spec_.carried = picture.file.facts.carried;
    if (!repaint.file.empty()) file_ = create_picture(repaint.file, spec_);
    if (repaint.dither) diffusion_.emplace(picture.shape().width, repaint.palette, repaint.formula);
  }

  Repainted run() {
    travel(
        *picture_.file.rows, road_for(picture_, options_, context_),
        [this] { return Worker(*this); }, [this](RepaintBand&& band) { take(std::move(band)); });
    require_counted(picture_.shape().pixels() - excluded_.total(), picture_);
    if (file_) file_->finish();
    Repainted out{excluded_, counts_, errors_.summary(), {}, {}};
    if (!repaint_.previews) return out;
    out.picture = preview_.thumbnail();
    out.repainted = repainted_preview_.thumbnail();
    return out;
  }

 private:
  static std::vector<Channel> planned_channels(const RepaintOptions& repaint) {
    std::vector<Channel> channels = channels_of(spaces::kLab);
    const Space* second = repaint.dither                                 ? &spaces::kSrgbLinear
                          : repaint.formula == DifferenceFormula::kOklab ? &spaces::kOklab
                                                                         : nullptr;
    if (second)
      for (const Channel& channel : channels_of(*second)) channels.push_back(channel);
    return channels;
  }

  std::uint32_t width() const { return picture_.shape().width; }

  /// Differences of n pixels to the colors they got. One for each thread.
  class ErrorMeter {
   public:
    explicit ErrorMeter(const std::vector<std::array<double, 3>>& labs)
        : labs_(labs), painted_(3) {}

    void measure(const ConstPlanes& lab, const std::uint8_t* numbers, std::size_t n,
                 float* errors) {
      for (std::size_t c = 0; c < 3; ++c)
        for (std::size_t i = 0; i < n; ++i)
          painted_.plane(c)[i] =
              static_cast<float>(labs_[std::max<std::size_t>(numbers[i], 1) - 1][c]);
      ciede2000_between(lab, read_only(painted_.planes()), n, errors);
    }

   private:
    const std::vector<std::array<double, 3>>& labs_;
    PlaneBuffer painted_;
  };

  /// One for each thread.
  class Worker {
   public:
    explicit Worker(RepaintJob& job)
        : job_(&job),
          reader_(job.picture_.file.info, job.picture_.counting),
          channels_(job.plan_),
          nearest_(job.repaint_.palette, job.repaint_.formula),
          meter_(job.labs_),
          collector_(job.preview_) {}

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
        out.errors.resize(pixels + kPlanePadding);
      }
      std::size_t at = 0;
      reader_.for_each_block(band, [&](const Block& block) {
        channels_.evaluate(block);
        collector_.add(block);
        job_->repaint_.dither ? keep(block, at, out) : paint(block, at, out);
        at += block.size;
      });
      out.excluded = reader_.take_excluded();
      if (!job_->repaint_.dither) job_->encode(out);
      return out;
    }

   private:
    void paint(const Block& block, std::size_t at, RepaintBand& out) {
      const std::size_t first = job_->repaint_.formula == DifferenceFormula::kOklab ? 3 : 0;
      std::uint8_t* const numbers = out.numbers.data() + at;
      nearest_.find(channels_.channels(first), block.size, numbers);
      if (block.counted)
        for (std::size_t i = 0; i < block.size; ++i)
          if (!block.counted[i]) numbers[i] = 0;
      meter_.measure(channels_.channels(0), numbers, block.size, out.errors.data() + at);
    }

    void keep(const Block& block, std::size_t at, RepaintBand& out) {
      for (std::size_t c = 0; c < 3; ++c) {
        std::copy_n(channels_.channel(c), block.size, out.lab[c].data() + at);
        std::copy_n(channels_.channel(3 + c), block.size, out.linear[c].data() + at);
      }
      for (std::size_t i = 0; i < block.size; ++i) out.counted[at + i] = block.counts(i);
    }

    RepaintJob* job_;
    BlockReader reader_;
    ChannelEvaluator channels_;
    NearestColor nearest_;
    ErrorMeter meter_;
    Preview::Collector collector_;
  };

  void encode(RepaintBand& band) const {
    if (!file_) return;
    const std::size_t pixels = std::size_t{band.rows} * width(), channels = spec_.shape.channels;
    std::vector<std::byte> samples(pixels * channels);
    for (std::size_t i = 0; i < pixels; ++i)
      std::memcpy(samples.data() + i * channels, bytes_[band.numbers[i]].data(), channels);
    band.encoded = file_->encode(band.first_row, band.rows, std::move(samples));
  }

  void dither(RepaintBand& band) {
    for (std::uint32_t y = 0; y < band.rows; ++y) {
      const std::size_t at = std::size_t{y} * width();
      diffusion_->next_row(
          {band.linear[0].data() + at, band.linear[1].data() + at, band.linear[2].data() + at},
          band.counted.data() + at, band.numbers.data() + at);
    }
    const std::size_t pixels = std::size_t{band.rows} * width();
    band.errors.resize(pixels + kPlanePadding);
    for (std::size_t at = 0; at < pixels; at += kBlockPixels)
      meter_.measure({band.lab[0].data() + at, band.lab[1].data() + at, band.lab[2].data() + at},
                     band.numbers.data() + at, std::min(kBlockPixels, pixels - at),
                     band.errors.data() + at);
    encode(band);
  }

  /// Bands come in order, so that sums do not depend on the number of threads.
  void take(RepaintBand&& band) {
    if (diffusion_) dither(band);
    const std::size_t pixels = std::size_t{band.rows} * width();
    for (std::size_t i = 0; i < pixels; ++i) {
      if (band.numbers[i] == 0) continue;
      ++counts_[band.numbers[i] - 1u];
      errors_.add(static_cast<double>(band.errors[i]));
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
      for (std::size_t c = 0; c < 3; ++c)
        for (std::size_t i = 0; i < block.size; ++i) {
          const std::uint8_t number = band.numbers[at + i];
          painted_.plane(c)[i] = number ? static_cast<float>(srgb_[number - 1u][c]) : 255.0f;
        }
      repainted_preview_.add(block, read_only(painted_.planes()));
      block.first_pixel += block.size;
    }
  }

  CountedPicture& picture_;
  const RepaintOptions& repaint_;
  const SharedOptions& options_;
  const Context& context_;
  ChannelPlan plan_;
  PictureSpec spec_;
  Preview preview_;
  ThumbnailSums repainted_preview_;
  PlaneBuffer painted_;
  std::vector<std::array<double, 3>> labs_, srgb_;
  std::vector<std::array<std::byte, 4>> bytes_ = std::vector<std::array<std::byte, 4>>(1);
  ErrorMeter meter_{labs_};  // of bands that are dithered
  std::unique_ptr<PictureWriter> file_;
  std::optional<ErrorDiffusion> diffusion_;
  std::vector<std::uint64_t> counts_;
  DistanceSums errors_;
  Excluded excluded_;
};

}  // namespace

Repainted repaint(CountedPicture& picture, const RepaintOptions& repaint,
                  const SharedOptions& options, const Context& context) {
  return RepaintJob(picture, repaint, options, context).run();
}

}  // namespace chalcedony
