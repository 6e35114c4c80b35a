#include "job/prepare/convert.h"

#include <algorithm>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "core/gamut/gamut_count.h"
#include "core/gamut/gamut_map.h"
#include "core/gamut/gamut_within.h"
#include "core/pixel/block_writer.h"
#include "core/pixel/code_dither.h"
#include "core/pixel/reordered_rows.h"
#include "io/picture/create_picture.h"
#include "job/picture/inputs.h"
#include "job/picture/picture_output.h"
#include "job/repeat/each_input.h"

namespace chalcedony {
namespace {

std::string_view sample_name(SampleType sample) {
  return sample == SampleType::kU8 ? "8" : sample == SampleType::kU16 ? "16" : "float";
}

/// What a band adds to the findings.
struct ConvertedBand {
  Excluded excluded;
  std::uint64_t clipped_before = 0;  // by spaces that are made of clipped sRGB
  GamutCount gamut;

  ConvertedBand& operator+=(const ConvertedBand& other) {
    excluded += other.excluded;
    clipped_before += other.clipped_before;
    gamut += other.gamut;
    return *this;
  }
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

/// Turns the Blocks of a picture into stored rows of another space. One for each thread.
class Converter {
 public:
  /// `may_leave`: whether colors may be out of gamut; `mapped`: as GamutMap takes it.
  Converter(const ChannelPlan& plan, const Counting& counting, const ConvertOptions& options,
            const BlockWriter& stored, bool may_leave, MappedColors* mapped)
      : stored_(stored),
        may_leave_(may_leave),
        read_channels_(plan.info().shape.channels),
        reader_(plan.info(), counting),
        channels_(plan) {
    if (options.map_gamut && may_leave) gamut_.emplace(*stored.info().space, mapped);
    if (options.dither) dither_.emplace(options.shared.seed, sample_scales(stored.info()));
  }

  ConvertedBand operator()(const Band& band, std::byte* samples) {
    ConvertedBand out;
    reader_.for_each_block(band, [&](const Block& block) {
      channels_.evaluate(block);
      ConstPlanes color = color_planes();
      if (may_leave_) out.gamut.add(block, color, stored_.info());
      if (gamut_ || dither_) color = changed(color, block);
      stored_.write(color, block.alpha, block.size, samples);
      samples += block.size * stored_.info().shape.pixel_bytes();
    });
    out.excluded = reader_.take_excluded();
    out.clipped_before = channels_.take_clipped();
    return out;
  }

 private:
  /// A space of one channel fills the planes it does not have with its first.
  ConstPlanes color_planes() const {
    return stored_.info().space->channel_count == 1
               ? ConstPlanes{channels_.channel(0), channels_.channel(0), channels_.channel(0)}
               : channels_.channels(0);
  }

  ConstPlanes changed(const ConstPlanes& color, const Block& block) {
    const Planes out = changed_.planes();
    for (std::size_t c = 0; c < 3; ++c) std::copy_n(color[c], block.size, out[c]);
    if (gamut_) gamut_->run(block, read_channels_, out);
    if (dither_) dither_->add(block, out);
    return read_only(out);
  }

  const BlockWriter& stored_;
  bool may_leave_;
  std::uint32_t read_channels_;  // of a pixel as it comes in
  BlockReader reader_;
  ChannelEvaluator channels_;
  std::optional<GamutMap> gamut_;
  std::optional<CodeDither> dither_;
  PlaneBuffer changed_;
};

/// The channels of a file whose order is not the usual one.
void put_in_order(CountedPicture& picture, const ConvertOptions& options) {
  if (!options.order) return;
  if (picture.file.info.color_channels() != 3)
    throw InputError("is gray, so there is no order of channels", "leave --order out",
                     picture.file.path.string());
  picture.file.rows = std::make_unique<ReorderedRows>(std::move(picture.file.rows), *options.order);
}

Json convert_one(const std::filesystem::path& input, const ConvertOptions& options,
                 const Context& context, const PictureOutput& place) {
  CountedPicture picture = open_color(input, options.shared, context);
  refuse_labels(picture);
  put_in_order(picture, options);
  const PictureInfo& info = picture.file.info;
  PictureSpec spec = spec_for(info, options);
  const std::filesystem::path output = place.path(input, spec.space->id, spec.shape.sample);
  if (!options.depth) spec.shape.sample = sample_for(output, spec.shape.sample);
  spec.carried = picture.file.facts.carried;
  const auto writer = create_picture(output, spec);

  const ChannelPlan plan(info, channels_of(*spec.space), options.shared.hue_floor);
  const BlockWriter stored(info_of(spec));
  const bool may_leave = may_leave_gamut(info, stored.info());
  std::unique_ptr<MappedColors> mapped;
  if (options.map_gamut && may_leave && !options.dither && MappedColors::fits(info, stored.info()))
    mapped = std::make_unique<MappedColors>();
  ConvertedBand sums;
  travel_to_picture(
      *picture.file.rows, road_for(picture, options.shared, context), spec.shape, *writer,
      [&] { return Converter(plan, picture.counting, options, stored, may_leave, mapped.get()); },
      [&](ConvertedBand&& band) { sums += band; });
  writer->finish();
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
              {"gamut", options.map_gamut ? "map" : "clip"},
              {"out_of_gamut_percent", percent(sums.gamut.outside, counted)},
              {"largest_excess", sums.gamut.largest_excess}};
}

/// Whether the file that is named can hold what is asked, before any input is opened.
void check_request(const ConvertOptions& options) {
  PictureSpec spec;
  spec.space = options.to ? options.to : &spaces::kSrgb;
  spec.shape.sample = options.depth.value_or(SampleType::kU8);
  spec.shape.channels = static_cast<std::uint32_t>(spec.space->channel_count);
  if (!options.depth && !spec.space->is_rgb &&
      format_of(options.shared.output) == PictureFormat::kTiff)
    spec.shape.sample = SampleType::kF32;
  check_format(options.shared.output, spec);
}

}  // namespace

Json run_convert(const ConvertOptions& options, const Context& context) {
  const PictureOutput place(options.shared, context, "convert", "picture-lab.tif");
  if (place.one_file()) check_request(options);
  Json summary = summary_frame("convert");
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    return convert_one(input, options, its_context, place);
  };
  for_each_input(options.shared, context, summary, do_one);
  return summary;
}

}  // namespace chalcedony
