#include "job/convert.h"

#include <algorithm>
#include <cmath>

#include "core/color/channel_plan.h"
#include "core/error.h"
#include "core/pixel/block_writer.h"
#include "io/picture_writer.h"
#include "job/inputs.h"
#include "job/picture_output.h"

namespace chalcedony {
namespace {

std::string_view sample_name(SampleType sample) {
  return sample == SampleType::kU8 ? "8" : sample == SampleType::kU16 ? "16" : "float";
}

/// What a band adds to the findings.
struct ConvertedBand {
  Excluded excluded;
  std::uint64_t clipped_before = 0;  // by spaces that are made of clipped sRGB
  std::uint64_t outside = 0;         // results out of the range of the file
  float largest_excess = 0;

  ConvertedBand& operator+=(const ConvertedBand& other) {
    excluded += other.excluded;
    clipped_before += other.clipped_before;
    outside += other.outside;
    largest_excess = std::max(largest_excess, other.largest_excess);
    return *this;
  }
};

/// RGB out of 0-255 is out of gamut in every depth; other spaces are only cut off by integers.
void count_outside(const PictureInfo& stored, const Block& block, const ConstPlanes& color,
                   ConvertedBand& band) {
  if (stored.is_float() && !stored.space->is_rgb) return;
  const std::size_t planes = stored.color_channels() == 1 ? 1 : stored.space->channel_count;
  for (std::size_t i = 0; i < block.size; ++i) {
    float excess = 0;
    for (std::size_t c = 0; c < planes; ++c) {
      const ChannelInfo& range = stored.space->channels[c];
      const float v = color[c][i];
      const float over =
          std::max(v - static_cast<float>(range.high), static_cast<float>(range.low) - v);
      excess = std::max(excess, over * static_cast<float>(255 / (range.high - range.low)));
    }
    if (!(excess > kGamutTolerance) || !block.counts(i)) continue;
    ++band.outside;
    band.largest_excess = std::max(band.largest_excess, excess);
  }
}

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

/// A space of one channel fills the planes it does not have with its first.
ConstPlanes color_planes(const ChannelEvaluator& channels, const Space& space) {
  return space.channel_count == 1
             ? ConstPlanes{channels.channel(0), channels.channel(0), channels.channel(0)}
             : channels.channels(0);
}

Json convert_one(const std::filesystem::path& input, const ConvertOptions& options,
                 const Context& context, const PictureOutput& place, Json& outputs) {
  CountedPicture picture = open_counted(input, options.shared, context);
  refuse_labels(picture);
  const PictureInfo& info = picture.file.info;
  PictureSpec spec = spec_for(info, options);
  const std::filesystem::path output = place.path(input, spec.space->id, spec.shape.sample);
  if (!options.depth) spec.shape.sample = sample_for(output, spec.shape.sample);
  const auto writer = create_picture(output, spec);

  const ChannelPlan plan(info, channels_of(*spec.space), options.shared.hue_floor);
  const BlockWriter maker(info_of(spec));
  ConvertedBand sums;
  const auto make_worker = [&] {
    return [&, reader = BlockReader(info, picture.counting), channels = ChannelEvaluator(plan)](
               const Band& band, std::byte* samples) mutable {
      ConvertedBand out;
      reader.for_each_block(band, [&](const Block& block) {
        channels.evaluate(block);
        const ConstPlanes color = color_planes(channels, *spec.space);
        maker.write(color, block.alpha, block.size, samples);
        count_outside(maker.info(), block, color, out);
        samples += block.size * spec.shape.pixel_bytes();
      });
      out.excluded = reader.take_excluded();
      out.clipped_before = channels.take_clipped();
      return out;
    };
  };
  travel_to_picture(*picture.file.rows, road_for(picture, options.shared, context), spec.shape,
                    *writer, make_worker, [&](ConvertedBand&& band) { sums += band; });
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

/// Whether the file that is named can hold what is asked, before any input is opened.
void check_request(const ConvertOptions& options) {
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
  const PictureOutput place(options.shared, "convert", "picture-lab.tif");
  if (place.one_file()) check_request(options);
  Json summary = summary_frame("convert");
  for_each_input(options.shared, context, summary, [&](const std::filesystem::path& input) {
    return convert_one(input, options, context, place, summary["outputs"]);
  });
  return summary;
}

}  // namespace chalcedony
