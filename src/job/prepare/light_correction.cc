#include "job/prepare/light_correction.h"

#include "core/channel/channel_plan.h"
#include "core/color/srgb.h"
#include "core/error.h"
#include "job/picture/band_sums.h"
#include "job/picture/inputs.h"
#include "job/picture/same_size.h"

namespace chalcedony {
namespace {

LightField field_of(const std::filesystem::path& path, const RasterShape& wanted,
                    const SharedOptions& shared, const Context& context) {
  const SharedOptions options = of_whole_picture(shared);
  CountedPicture blank = open_counted(path, options, context);
  const RasterShape& mine = blank.shape();
  require_same_size(path, mine, "the picture", wanted, "give a blank of the same size");
  FieldMeans sums(mine.width, mine.height);
  sum_bands(blank, options, context, sums, [] {
    return [light = PlaneBuffer()](FieldMeans& band, const Block& block) mutable {
      decode_srgb(block.color, light.planes(), block.size);
      band.add(block, read_only(light.planes()));
    };
  });
  require_counted(sums.pixels(), blank);
  return sums.field();
}

LightField fitted_field(CountedPicture& picture, const SharedOptions& options,
                        const Context& context) {
  SurfaceSums sums(picture.shape().width, picture.shape().height);
  const ChannelPlan plan(picture.file.info, {{&spaces::kXyzD65, 1}});
  sum_bands(picture, options, context, sums, [&plan] {
    return [luminance = ChannelEvaluator(plan)](SurfaceSums& band, const Block& block) mutable {
      luminance.evaluate(block);
      band.add(block, luminance.channel(0));
    };
  });
  picture.file.rows->rewind();
  return errors_at(picture.file.path.string(), [&] { return sums.field(); });
}

}  // namespace

LightCorrection learn_light(const FlatField& flat, CountedPicture& picture,
                            const SharedOptions& options, const Context& context) {
  if (flat.fit) return LightCorrection(fitted_field(picture, options, context));
  LightField blank = field_of(flat.blank, picture.shape(), options, context);
  if (!flat.dark) return LightCorrection(std::move(blank));
  const LightField dark = field_of(*flat.dark, picture.shape(), options, context);
  return LightCorrection(std::move(blank), &dark);
}

}  // namespace chalcedony
