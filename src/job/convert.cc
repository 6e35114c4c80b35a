#include "job/convert.h"

#include <algorithm>
#include <cmath>

#include "core/color/channel_plan.h"
#include "core/error.h"
#include "core/pixel/interleave.h"
#include "core/pixel/row_buffers.h"
#include "io/picture_writer.h"
#include "job/inputs.h"
#include "job/results.h"

namespace chalcedony {
namespace {

std::string_view sample_name(SampleType sample) {
  return sample == SampleType::kU8 ? "8" : sample == SampleType::kU16 ? "16" : "float";
}

/// A band on its way to the file, and what was clipped in it.
struct ConvertedBand {
  EncodedRows rows;
  Excluded excluded;
  std::uint64_t clipped_before = 0;  // by spaces that are made of clipped sRGB
  std::uint64_t outside = 0;         // results out of the range of the file
  float largest_excess = 0;
};

/// Turns Blocks of the target space into stored rows.
class RowMaker {
 public:
  RowMaker(const PictureSpec& spec) : spec_(spec) {
    for (std::size_t c = 0; c < 3; ++c)
      scale_[c] = sample_scale(*spec.space, std::min<std::size_t>(c, spec.space->channel_count - 1),
                               spec.shape.sample);
  }

  void write(const Block& block, const ChannelEvaluator& channels, std::byte* stored,
             ConvertedBand& band) const {
    const RasterShape& shape = spec_.shape;
    if (spec_.space->channel_count == 1 || gray_file()) {
      write_plane(channels.channel(0), block.size, shape.channels, shape.sample, 0, scale_[0],
                  stored);
    } else {
      write_planes(channels.channels(0), block.size, shape.channels, shape.sample, scale_, stored);
    }
    if (spec_.alpha) write_alpha(block, stored);
    count_outside(block, channels, band);
  }

  bool gray_file() const { return spec_.shape.channels - (spec_.alpha ? 1 : 0) == 1; }

 private:
  void write_alpha(const Block& block, std::byte* stored) const {
    const RasterShape& shape = spec_.shape;
    const SampleScale scale{1.0 / full_scale_of(shape.sample), 0};
    write_plane(block.alpha, block.size, shape.channels, shape.sample, shape.channels - 1, scale,
                stored);
  }

  /// RGB out of 0-255 is out of gamut in every depth; other spaces are only cut off by integers.
  void count_outside(const Block& block, const ChannelEvaluator& channels,
                     ConvertedBand& band) const {
    const bool is_float = spec_.shape.sample == SampleType::kF32;
    if (is_float && !spec_.space->is_rgb) return;
    const std::size_t planes = gray_file() ? 1 : spec_.space->channel_count;
    for (std::size_t i = 0; i < block.size; ++i) {
      float excess = 0;
      for (std::size_t c = 0; c < planes; ++c) {
        const ChannelInfo& range = spec_.space->channels[c];
        const float v = channels.channel(c)[i];
        const float over =
            std::max(v - static_cast<float>(range.high), static_cast<float>(range.low) - v);
        excess = std::max(excess, over * static_cast<float>(255 / (range.high - range.low)));
      }
      if (!(excess > kGamutTolerance) || !block.counts(i)) continue;
      ++band.outside;
      band.largest_excess = std::max(band.largest_excess, excess);
    }
  }

  PictureSpec spec_;
  std::array<SampleScale, 3> scale_;
};

PictureSpec spec_for(const PictureInfo& info, const ConvertOptions& options) {
  PictureSpec spec;
  spec.space = options.to ? options.to : info.space;
  spec.alpha = options.keep_alpha && info.alpha != AlphaKind::kNone;
  SampleType sample = options.depth.value_or(info.shape.sample);
  if (!options.depth && sample == SampleType::kU8 && !spec.space->is_rgb) sample = SampleType::kF32;
  const bool gray =
      spec.space->channel_count == 1 || (spec.space == info.space && info.color_channels() == 1);
  spec.shape = {info.shape.width, info.shape.height, (gray ? 1u : 3u) + (spec.alpha ? 1u : 0u),
                sample};
  return spec;
}

/// A name without a depth asked: floats do not fit a PNG, so 16 bits are written there.
void fit_to_format(const std::filesystem::path& path, const ConvertOptions& options,
                   PictureSpec& spec) {
  const PictureFormat format = format_of(path);
  if (!options.depth && format == PictureFormat::kPng && spec.shape.sample == SampleType::kF32)
    spec.shape.sample = SampleType::kU16;
  if (!options.depth && format == PictureFormat::kJpeg && spec.space->is_rgb)
    spec.shape.sample = SampleType::kU8;
}

std::filesystem::path output_for(const std::filesystem::path& input, const ConvertOptions& options,
                                 const PictureSpec& spec) {
  if (options.shared.inputs.size() == 1 && options.shared.output.has_extension())
    return options.shared.output;
  const bool tiff = spec.shape.sample == SampleType::kF32;
  return options.shared.output /
         (input.stem().string() + "." + std::string(spec.space->id) + (tiff ? ".tif" : ".png"));
}

Json convert_one(const std::filesystem::path& input, const ConvertOptions& options,
                 const Context& context, Json& outputs) {
  CountedPicture picture = open_counted(input, options.shared, context);
  const PictureInfo& info = picture.file.info;
  PictureSpec spec = spec_for(info, options);
  const std::filesystem::path output = output_for(input, options, spec);
  fit_to_format(output, options, spec);
  check_output(output, options.shared);
  const auto writer = create_picture(output, spec);

  const ChannelPlan plan(info, channels_of(*spec.space), options.shared.hue_floor);
  const RowMaker maker(spec);
  const RoadOptions road = road_for(picture, options.shared, context);
  const std::size_t band_bytes = rows_per_band(info.shape, 0) * spec.shape.row_bytes();
  RowBuffers buffers(bands_under_way(road), band_bytes);
  ConvertedBand sums;
  const auto make_worker = [&] {
    return [&, reader = BlockReader(info, picture.counting),
            channels = ChannelEvaluator(plan)](const Band& band) mutable {
      ConvertedBand out;
      std::vector<std::byte> samples = buffers.take(spec.shape.row_bytes() * band.rows());
      std::byte* at = samples.data();
      reader.for_each_block(band, [&](const Block& block) {
        channels.evaluate(block);
        maker.write(block, channels, at, out);
        at += block.size * spec.shape.pixel_bytes();
      });
      out.excluded = reader.take_excluded();
      out.clipped_before = channels.take_clipped();
      out.rows = writer->encode(band.first_row(), band.rows(), std::move(samples));
      return out;
    };
  };
  travel(*picture.file.rows, road, make_worker, [&](ConvertedBand&& band) {
    writer->append(band.rows);
    buffers.give_back(std::move(band.rows.bytes));
    sums.excluded += band.excluded;
    sums.clipped_before += band.clipped_before;
    sums.outside += band.outside;
    sums.largest_excess = std::max(sums.largest_excess, band.largest_excess);
  });
  writer->finish();
  outputs.push_back(output.string());
  const std::uint64_t counted = info.shape.pixels() - sums.excluded.total();
  return Json{{"file", input.string()},
              {"output", output.string()},
              {"from", std::string(info.space->id)},
              {"to", std::string(spec.space->id)},
              {"title", std::string(spec.space->title)},
              {"depth", std::string(sample_name(spec.shape.sample))},
              {"width", info.shape.width},
              {"height", info.shape.height},
              {"counted", counted},
              {"excluded", excluded_json(sums.excluded)},
              {"clipped_before_percent", percent(sums.clipped_before, counted)},
              {"out_of_gamut_percent", percent(sums.outside, counted)},
              {"largest_excess", sums.largest_excess}};
}

/// What can be refused without opening an input.
void check_request(const ConvertOptions& options) {
  if (options.shared.output.empty())
    throw UsageError("convert needs -o", "name the file to write, for example -o picture-lab.tif");
  const bool one_file = options.shared.inputs.size() == 1 && options.shared.output.has_extension();
  if (!one_file) {
    check_stems(options.shared.inputs);
    return;
  }
  PictureSpec spec;
  spec.space = options.to ? options.to : &spaces::kSrgb;
  spec.shape.sample = options.depth.value_or(SampleType::kU8);
  if (!options.depth && !spec.space->is_rgb &&
      format_of(options.shared.output) == PictureFormat::kTiff)
    spec.shape.sample = SampleType::kF32;
  check_format(options.shared.output, spec);
}

}  // namespace

Json run_convert(const ConvertOptions& options, const Context& context) {
  check_request(options);
  if (!(options.shared.inputs.size() == 1 && options.shared.output.has_extension()))
    make_folder(options.shared.output);
  Json summary = summary_frame("convert");
  for_each_input(options.shared, context, summary, [&](const std::filesystem::path& input) {
    return convert_one(input, options, context, summary["outputs"]);
  });
  return summary;
}

}  // namespace chalcedony
