#include "job/prepare/smooth.h"

#include "io/picture/create_picture.h"
#include "job/picture/inputs.h"
#include "job/picture/picture_output.h"
#include "job/repeat/each_input.h"

namespace chalcedony {
namespace {

Json smooth_one(const std::filesystem::path& input, const SmoothOptions& options,
                const Context& context, const PictureOutput& place) {
  CountedPicture picture = open_color(input, options.shared, context);
  refuse_labels(picture);
  const PictureInfo& info = picture.file.info;
  refuse_hue(info, input);
  PictureSpec spec = spec_like(info);
  const auto output = place.path(input, "smooth", spec.shape.sample);
  spec.shape.sample = sample_for(output, spec.shape.sample);
  spec.carried = picture.file.facts.carried;
  const auto writer = create_picture(output, spec);
  const BlockWriter stored(info_of(spec));
  RoadOptions road = road_for(picture, options.shared, context);
  road.halo = halo_of(options.filter);
  Excluded excluded;
  const auto make_worker = [&] {
    return [filter = BandFilter(info, picture.counting, options.filter, stored)](
               const Band& band, std::byte* rows) mutable {
      filter.run(band, rows);
      return filter.take_excluded();
    };
  };
  travel_to_picture(*picture.file.rows, road, spec.shape, *writer, make_worker,
                    [&](const Excluded& band) { excluded += band; });
  writer->finish();
  return {{"file", input.string()},
          {"output", output.string()},
          {"width", info.shape.width},
          {"height", info.shape.height},
          {"counted", info.shape.pixels() - excluded.total()},
          {"excluded", excluded_json(excluded)}};
}

}  // namespace

Json run_smooth(const SmoothOptions& options, const Context& context) {
  const PictureOutput place(options.shared, context, "smooth", "picture-smooth.png");
  Json summary = summary_frame("smooth");
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    return smooth_one(input, options, its_context, place);
  };
  for_each_input(options.shared, context, summary, do_one);
  return summary;
}

}  // namespace chalcedony
