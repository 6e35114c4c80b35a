#include "job/region/region_colors.h"

#include <algorithm>
#include <limits>

#include "core/channel/channel_plan.h"
#include "core/pixel/uncounted.h"
#include "job/picture/same_size.h"

namespace chalcedony {
namespace {

/// The values of a band, NaN where a pixel does not count.
struct ValueBand {
  std::uint32_t rows = 0;
  std::vector<std::vector<float>> planes;
};

ValueBand values_of(const Band& band, BlockReader& reader, ChannelEvaluator& evaluator,
                    Preview::Collector& collector, std::size_t channels) {
  ValueBand out;
  out.rows = band.rows();
  const std::size_t pixels = std::size_t{band.rows()} * band.shape().width;
  out.planes.assign(channels, std::vector<float>(pixels));
  std::size_t at = 0;
  reader.for_each_block(band, [&](const Block& block) {
    evaluator.evaluate(block);
    collector.add(block);
    for (std::size_t c = 0; c < channels; ++c) {
      float* const values = out.planes[c].data() + at;
      std::copy_n(evaluator.channel(c), block.size, values);
      fill_uncounted(block, std::numeric_limits<float>::quiet_NaN(), values);
    }
    at += block.size;
  });
  return out;
}

}  // namespace

std::vector<RegionColors> region_colors(CountedPicture& image, LabelFile& labels,
                                        Connectivity connectivity,
                                        const std::vector<std::uint32_t>& region_of_part,
                                        std::size_t regions, const std::vector<Channel>& channels,
                                        Preview& preview, const SharedOptions& options,
                                        const Context& context) {
  const RasterShape& shape = labels.rows->shape();
  require_same_size(image.file.path, image.shape(), "the regions are of", shape,
                    "give the picture the regions belong to");
  RegionValues values(channels, regions);
  const ChannelPlan plan(image.file.info, values.channels(), options.hue_floor);
  const auto make_worker = [&] {
    return [&, reader = BlockReader(image.file.info, image.counting),
            evaluator = ChannelEvaluator(plan),
            collector = Preview::Collector(preview)](const Band& band) mutable {
      return values_of(band, reader, evaluator, collector, values.channels().size());
    };
  };
  RunLinker linker(shape.width, connectivity);
  labels.rows->rewind();
  LabelRows rows(labels);
  travel(*image.file.rows, road_for(image, options, context), make_worker, [&](ValueBand&& band) {
    for (std::uint32_t y = 0; y < band.rows; ++y)
      for (const RegionRun& run : linker.add_row(rows.next())) {
        const std::size_t at = std::size_t{y} * shape.width;
        values.add(region_of_part[run.part], band.planes, at + run.begin, at + run.end);
      }
  });
  return values.take_colors();
}

}  // namespace chalcedony
