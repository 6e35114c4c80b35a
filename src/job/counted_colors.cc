#include "job/counted_colors.h"

#include <algorithm>

namespace chalcedony {
namespace {

/// The counted colors of a band where not all pixels count.
struct PickedColors {
  std::vector<std::uint32_t> packed;
  Excluded excluded;
};

void pick(const Block& block, std::uint32_t channels, std::vector<std::uint32_t>& packed) {
  for (std::size_t i = 0; i < block.size; ++i)
    if (block.counts(i)) packed.push_back(ColorCounter::pack(block.stored + i * channels));
}

}  // namespace

bool colors_tell(const PictureInfo& info, const std::vector<Channel>& channels) {
  return ColorCounter::fits(info) &&
         std::all_of(channels.begin(), channels.end(),
                     [](const Channel& c) { return !c.is_stored() || c.index < 3; });
}

CountedColors count_colors(CountedPicture& picture, const SharedOptions& options,
                           const Context& context, Preview& preview) {
  const PictureInfo& info = picture.file.info;
  const std::uint32_t channels = info.shape.channels;
  const Counting& counting = picture.counting;
  const bool all_count = !counting.region && !counting.within &&
                         (info.alpha == AlphaKind::kNone || counting.count_transparent);
  CountedColors out;
  ColorCounter counter;
  const auto make_worker = [&] {
    return [&, reader = BlockReader(info, counting),
            collector = Preview::Collector(preview)](const Band& band) mutable {
      PickedColors picked;
      if (all_count && !preview.wanted()) return picked;
      reader.for_each_block(band, [&](const Block& block) {
        collector.add(block);
        if (!all_count) pick(block, channels, picked.packed);
      });
      picked.excluded = reader.take_excluded();
      return picked;
    };
  };
  // Counting takes no time beside decoding, so one table serves all threads, in the sink.
  travel(*picture.file.rows, road_for(picture, options, context), make_worker,
         [&](PickedColors&& picked, const Band& band) {
           if (all_count)
             counter.add_stored(band.own_rows(), channels,
                                std::size_t{band.rows()} * info.shape.width);
           counter.add(picked.packed);
           out.excluded += picked.excluded;
         });
  out.table = counter.table();
  out.info = info;
  out.info.shape = out.table.shape;
  out.info.alpha = AlphaKind::kNone;
  return out;
}

}  // namespace chalcedony
