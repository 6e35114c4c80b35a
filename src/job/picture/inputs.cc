#include "job/picture/inputs.h"

#include <cmath>
#include <utility>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "core/learn/sample_shape.h"
#include "core/pixel/kept_rows.h"
#include "core/pixel/picked_rows.h"
#include "io/document/sample_file.h"
#include "io/picture/mask_file.h"
#include "io/picture/open_picture.h"
#include "job/run/partner_files.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostKeptBytes = 100'000'000;

/// The pixels in regions of a sample file, of the classes that --within names if it does.
Mask regions_as_mask(const std::filesystem::path& file, const SharedOptions& options,
                     std::uint32_t width, std::uint32_t height) {
  SampleSet regions = read_samples(file, width, height, options.samples_of_other_size);
  return errors_at(file.string(), [&] {
    if (!options.within_classes.empty())
      regions = samples_of_classes(std::move(regions), options.within_classes);
    return mask_of(sample_runs(regions, width, height), width, height);
  });
}

/// What --within says for an input.
Mask mask_within(const SharedOptions& options, const std::filesystem::path& input,
                 std::uint32_t width, std::uint32_t height, const Context& context) {
  const std::filesystem::path& file = options.within->of(input, *context.ledger);
  if (is_sample_file(file)) return regions_as_mask(file, options, width, height);
  if (!options.within_classes.empty())
    return read_classes_as_mask(file, options.within_classes, width, height);
  std::vector<std::string> warnings;
  Mask mask = read_mask(file, width, height, warnings);
  for (const std::string& warning : warnings) context.warn(warning);
  return mask;
}

}  // namespace

Counting counting_for(const SharedOptions& options, const std::filesystem::path& input,
                      std::uint32_t width, std::uint32_t height, const Context& context) {
  Counting counting;
  counting.count_transparent = options.count_transparent;
  if (options.region)
    counting.region = errors_at(input.string(), [&] { return options.region->in(width, height); });
  if (options.within)
    counting.within =
        std::make_shared<const Mask>(mask_within(options, input, width, height, context));
  return counting;
}

CountedPicture open_counted(const std::filesystem::path& path, const SharedOptions& options,
                            const Context& context) {
  ReadOptions read;
  read.assume = options.assume;
  read.max_pixels = options.max_pixels;
  read.full_scale = options.full_scale;
  read.bands = options.bands;
  read.page = options.page;
  CountedPicture picture{open_picture(path, read), {}};
  for (const std::string& warning : picture.file.facts.warnings)
    context.warn(path.string() + ": " + warning);
  const RasterShape& shape = picture.shape();
  picture.counting = counting_for(options, path, shape.width, shape.height, context);
  return picture;
}

SharedOptions of_whole_picture(SharedOptions options) {
  options.region.reset();
  options.within.reset();
  return options;
}

void keep_rows(CountedPicture& picture) {
  if (picture.file.rows->rereads_quickly()) return;
  picture.file.rows = std::make_unique<KeptRows>(std::move(picture.file.rows), kMostKeptBytes);
}

void require_color(const PictureInfo& info) {
  const ChannelPlan asks_for_color(info, channels_of(*info.space));
}

CountedPicture open_color(const std::filesystem::path& path, const SharedOptions& options,
                          const Context& context) {
  CountedPicture picture = open_counted(path, options, context);
  PictureInfo& info = picture.file.info;
  if (!info.bands) return picture;
  require_color(info);
  picture.file.rows = std::make_unique<PickedRows>(std::move(picture.file.rows), info.bands->of);
  info.shape = picture.file.rows->shape();
  info.bands.reset();
  info.alpha = AlphaKind::kNone;
  return picture;
}

CodesOf codes_of(const CountedPicture& picture) {
  const FileFacts& facts = picture.file.facts;
  const bool integers_once = facts.converted && !facts.floats;
  return {&picture.file.info,
          integers_once ? std::exp2(facts.bits) - 1 : picture.file.info.full_scale};
}

RoadOptions road_for(const CountedPicture& picture, const SharedOptions& options,
                     const Context& context) {
  return road_for(picture.file.path, picture.shape().height, options, context);
}

RoadOptions road_for(const std::filesystem::path& input, std::uint32_t rows,
                     const SharedOptions& options, const Context& context) {
  RoadOptions road;
  road.threads = options.threads;
  road.stop = context.stop;
  if (context.progress)
    road.progress = [&context, name = input.filename().string(), rows](std::uint64_t done) {
      context.progress(name, done, rows);
    };
  return road;
}

bool all_pixels_count(const CountedPicture& picture) {
  const Counting& counting = picture.counting;
  return !counting.region && !counting.within &&
         (picture.file.info.alpha == AlphaKind::kNone || counting.count_transparent);
}

void require_counted(std::uint64_t counted, const CountedPicture& picture) {
  if (counted == 0)
    throw InputError("no pixel counts", "check --region, --within and the picture's transparency",
                     picture.file.path.string());
}

}  // namespace chalcedony
