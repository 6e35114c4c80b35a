#include "job/prepare/reframe.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <utility>

#include "core/degrees.h"
#include "core/error.h"
#include "core/pixel/block_reader.h"
#include "core/pixel/block_writer.h"
#include "core/reframe/cropped_rows.h"
#include "core/reframe/scaled_rows.h"
#include "core/reframe/straightened_rows.h"
#include "core/reframe/turned_rows.h"
#include "io/picture/create_picture.h"
#include "io/picture/label_picture.h"
#include "io/picture/open_picture.h"
#include "io/picture/orientation.h"
#include "io/picture/picture_writer.h"
#include "job/picture/inputs.h"
#include "job/picture/picture_output.h"
#include "job/repeat/each_input.h"

namespace chalcedony {
namespace {

constexpr std::uint32_t kMostPixelsAlong = 1u << 20;

/// The picture on its way through the steps.
struct Reframed {
  std::unique_ptr<RowSource> rows;
  PictureInfo info;
  bool labels = false;
  std::vector<LegendEntry> legend;
  CarriedFacts carried;
};

/// Opens a picture; labels by their numbers.
Reframed open_for_reframing(const std::filesystem::path& input, const ReframeOptions& options,
                            const Context& context) {
  CountedPicture picture = open_color(input, options.shared, context);
  if (!holds_labels(picture.file))
    return {std::move(picture.file.rows), picture.file.info, false, {}, picture.file.facts.carried};
  ReadOptions by_number;
  by_number.palette_indices = true;
  by_number.max_pixels = options.shared.max_pixels;
  PictureFile file = open_picture(input, by_number);
  return {std::move(file.rows), file.info, true, std::move(file.facts.legend), file.facts.carried};
}

void crop(Reframed& picture, const Region& region, const std::filesystem::path& input) {
  const RasterShape& shape = picture.info.shape;
  const PixelRect rect =
      errors_at(input.string(), [&] { return region.in(shape.width, shape.height); });
  picture.rows = std::make_unique<CroppedRows>(std::move(picture.rows), rect);
  picture.info.shape = picture.rows->shape();
  picture.carried = reframed(picture.carried, 1, 1);
}

/// Quarter turns move whole pixels, so that nothing is lost.
void turn_by_quarters(Reframed& picture, int quarters) {
  constexpr std::array kOrientation{1, 6, 3, 8};  // Exif: stored so, and seen turned by as much
  if (quarters == 0) return;
  picture.rows =
      turn_upright(std::move(picture.rows), kOrientation[static_cast<std::size_t>(quarters)]);
  picture.info.shape = picture.rows->shape();
  picture.carried = reframed(picture.carried, 1, 1);
  if (quarters % 2 == 1)
    std::swap(picture.carried.pixels_per_meter_x, picture.carried.pixels_per_meter_y);
}

/// How a picture is seen between its pixels and beside it.
PointLook look_at(const Reframed& picture, const ReframeOptions& options) {
  PointLook look{picture.labels};
  if (options.fill) look.fill = options.fill->in(*picture.info.space);
  if (picture.labels) look.fill = std::array<double, 3>{};
  return look;
}

void straighten(Reframed& picture, const ReframeOptions& options) {
  auto straightened = std::make_unique<StraightenedRows>(
      std::move(picture.rows), picture.info, *options.corners, look_at(picture, options));
  picture.info = straightened->info();
  // Nearer parts were larger, so that one resolution was never true of it.
  picture.carried = reframed(picture.carried, 0, 0);
  picture.rows = std::move(straightened);
}

void turn(Reframed& picture, const ReframeOptions& options) {
  const double degrees = on_circle(options.turn);
  if (std::fmod(degrees, 90) == 0) return turn_by_quarters(picture, static_cast<int>(degrees / 90));
  auto turned = std::make_unique<TurnedRows>(std::move(picture.rows), picture.info, degrees,
                                             look_at(picture, options));
  picture.info = turned->info();
  picture.carried = reframed(picture.carried, 1, 1);
  picture.rows = std::move(turned);
}

std::uint32_t whole_pixels(double length) {
  return static_cast<std::uint32_t>(
      std::clamp(std::round(length), 1.0, static_cast<double>(kMostPixelsAlong)));
}

/// A side that is not given keeps the picture's proportions.
Scaling scaling_of(const RasterShape& shape, const ReframeOptions& options, bool labels) {
  const WantedSize& size = options.size;
  double across = size.factor.value_or(1), down = across;
  if (size.width) across = static_cast<double>(*size.width) / shape.width;
  if (size.height) down = static_cast<double>(*size.height) / shape.height;
  if (size.width && !size.height) down = across;
  if (size.height && !size.width) across = down;
  return {whole_pixels(shape.width * across), whole_pixels(shape.height * down),
          labels ? Interpolation::kNearest : options.enlarging, options.linear_light && !labels};
}

void scale(Reframed& picture, const ReframeOptions& options) {
  const Scaling scaling = scaling_of(picture.info.shape, options, picture.labels);
  const RasterShape& shape = picture.info.shape;
  if (scaling.width == shape.width && scaling.height == shape.height) return;
  picture.carried = reframed(picture.carried, static_cast<double>(scaling.width) / shape.width,
                             static_cast<double>(scaling.height) / shape.height);
  auto scaled = std::make_unique<ScaledRows>(std::move(picture.rows), picture.info, scaling);
  picture.info = scaled->info();
  picture.rows = std::move(scaled);
}

/// Whether new pixels are means of old ones.
bool averages(const ReframeOptions& options) {
  return options.corners || std::fmod(options.turn, 90) != 0 || options.size.factor ||
         options.size.width || options.size.height;
}

PictureSpec spec_of(const Reframed& picture) {
  PictureSpec spec = picture.labels ? label_spec(picture.info.shape, picture.info.shape.sample)
                                    : spec_like(picture.info);
  spec.legend = picture.legend;
  spec.carried = picture.carried;
  return spec;
}

/// Rows as they are where the file holds them alike, so that floats keep every bit.
void write_rows(Reframed& picture, const PictureSpec& spec, const RoadOptions& road,
                PictureWriter& writer) {
  const PictureInfo& from = picture.info;
  const bool alike = from.shape.sample == spec.shape.sample &&
                     from.alpha != AlphaKind::kPremultiplied &&
                     (spec.labels || from.full_scale == full_scale_of(spec.shape.sample));
  const BlockWriter maker(info_of(spec));
  const auto make_worker = [&] {
    return
        [&, reader = BlockReader(from, count_all())](const Band& band, std::byte* samples) mutable {
          if (alike) {
            std::memcpy(samples, band.own_rows(), band.rows() * from.shape.row_bytes());
            return 0;
          }
          reader.for_each_block(band, [&](const Block& block) {
            maker.write(block.color, block.alpha, block.size, samples);
            samples += block.size * spec.shape.pixel_bytes();
          });
          return 0;
        };
  };
  travel_to_picture(*picture.rows, road, spec.shape, writer, make_worker, [](int) {});
  writer.finish();
}

/// What lies beside a picture that had no alpha needs a file that holds some.
void check_beside(const Reframed& picture, const std::filesystem::path& output) {
  const bool blank = picture.info.alpha != AlphaKind::kNone;
  if (!blank || format_of(output) != PictureFormat::kJpeg) return;
  throw UsageError("what lies beside the picture is transparent, and a JPEG holds no alpha",
                   "give its color with --fill, or write a .png", output.string());
}

Json reframe_one(const std::filesystem::path& input, const ReframeOptions& options,
                 const Context& context, const PictureOutput& place) {
  Reframed picture = open_for_reframing(input, options, context);
  const PictureInfo was = picture.info;
  if (!picture.labels && averages(options)) refuse_hue(picture.info, input);
  if (options.corners) straighten(picture, options);
  if (options.crop) crop(picture, *options.crop, input);
  turn(picture, options);
  scale(picture, options);
  PictureSpec spec = spec_of(picture);
  const auto output = place.path(input, "reframed", spec.shape.sample);
  if (was.alpha == AlphaKind::kNone) check_beside(picture, output);
  if (!picture.labels) spec.shape.sample = sample_for(output, spec.shape.sample);
  const auto writer = create_picture(output, spec);
  write_rows(picture, spec, road_for(input, spec.shape.height, options.shared, context), *writer);
  return {{"file", input.string()},
          {"output", output.string()},
          {"labels", picture.labels},
          {"from", {{"width", was.shape.width}, {"height", was.shape.height}}},
          {"width", spec.shape.width},
          {"height", spec.shape.height}};
}

}  // namespace

Json run_reframe(const ReframeOptions& options, const Context& context) {
  const PictureOutput place(options.shared, context, "reframe", "picture-part.png");
  Json summary = summary_frame("reframe");
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    return reframe_one(input, options, its_context, place);
  };
  for_each_input(options.shared, context, summary, do_one);
  return summary;
}

}  // namespace chalcedony
