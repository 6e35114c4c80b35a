#include "job/picture/counted_blocks.h"

#include <algorithm>
#include <utility>

#include "core/arena.h"
#include "core/pixel/color_number.h"
#include "core/pixel/memory_source.h"

namespace chalcedony {
bool colors_tell(const PictureInfo& info, const std::vector<Channel>& channels) {
  return ColorCounter::fits(info) &&
         std::all_of(channels.begin(), channels.end(),
                     [&](const Channel& c) { return !needs_stored(c, info.color_channels()); });
}

ColorCounting::ColorCounting(const CountedPicture& picture, ColorTally& tally)
    : all_count_(all_pixels_count(picture)), channels_(picture.shape().channels), tally_(tally) {}

void ColorCounting::pick(const Block& block, std::vector<std::uint32_t>& picked) const {
  if (all_count_) return;
  for (std::size_t i = 0; i < block.size; ++i)
    if (block.counts(i)) picked.push_back(color_number(block.stored + i * channels_, channels_));
}

void ColorCounting::add(const Band& band, const std::vector<std::uint32_t>& picked) const {
  tally_.count([&](ColorCounter& counter) {
    if (all_count_)
      counter.add_stored(band.own_rows(), channels_, std::size_t{band.rows()} * band.shape().width);
    counter.add(picked);
  });
}

CountedBlocks::CountedBlocks(CountedPicture& picture, const SharedOptions& options,
                             const Context& context, const std::vector<Channel>& channels,
                             Preview* preview, bool wants_colors)
    : CountedBlocks(picture, options, context, picture.counting) {
  preview_ = preview;
  if (!colors_tell(info_, channels)) return;
  if (!wants_colors && info_.shape.pixels() < ColorCounter::kFewPixels) return;
  ColorTally tally;
  excluded_ = count_colors(picture, options, context, preview, tally);
  take_table(options, tally);
}

CountedBlocks::CountedBlocks(const CountedPicture& picture, const SharedOptions& options,
                             const Context& context, ColorTally& tally)
    : road_(road_for(picture, options, context)), info_(picture.file.info) {
  take_table(options, tally);
}

CountedBlocks::CountedBlocks(CountedPicture& picture, const SharedOptions& options,
                             const Context& context, const Counting& counting)
    : road_(road_for(picture, options, context)),
      info_(picture.file.info),
      counting_(counting),
      rows_(picture.file.rows.get()) {}

void CountedBlocks::take_table(const SharedOptions& options, ColorTally& tally) {
  in_arena(options.threads, [&] { table_ = tally.take().table(); });
  info_.shape = table_->shape;
  info_.alpha = AlphaKind::kNone;
  counting_ = {};
  preview_ = nullptr;
  road_.progress = nullptr;
  table_rows_ = std::make_unique<MemorySource>(table_->shape, std::move(table_->rgb));
  rows_ = table_rows_.get();
}

std::optional<StoredColors> CountedBlocks::colors() {
  if (!table_) return std::nullopt;
  StoredColors colors;
  colors.space = info_.space;
  std::vector<std::byte> rgb(table_->shape.row_bytes() * table_->shape.height);
  rows_->rewind();
  rows_->read_rows(table_->shape.height, rgb.data());
  for (std::size_t i = 0; i < 3 * table_->colors; ++i)
    colors.rgb.push_back(std::to_integer<std::uint8_t>(rgb[i]));
  colors.pixels.assign(table_->counts.begin(),
                       table_->counts.begin() + static_cast<std::ptrdiff_t>(table_->colors));
  return colors;
}

Excluded count_colors(CountedPicture& picture, const SharedOptions& options, const Context& context,
                      Preview* preview, ColorTally& tally) {
  const PictureInfo& info = picture.file.info;
  const ColorCounting counting(picture, tally);
  Excluded excluded;
  const auto make_worker = [&] {
    return [&, reader = BlockReader(info, picture.counting, preview && preview->wanted()),
            collector = collector_for(preview),
            picked = std::vector<std::uint32_t>()](const Band& band) mutable {
      picked.clear();
      if (!counting.all_count() || collector)
        reader.for_each_block(band, [&](const Block& block) {
          if (collector) collector->add(block);
          counting.pick(block, picked);
        });
      counting.add(band, picked);
      return reader.take_excluded();
    };
  };
  RoadOptions road = road_for(picture, options, context);
  // Rows that stay in memory anyway may wait in a long line, so that the thread that decodes, for
  // which all others wait in the end, counts none of them.
  if (picture.file.rows->lends()) road.bands_each = 32;
  travel(*picture.file.rows, road, make_worker,
         [&](const Excluded& in_band) { excluded += in_band; });
  return excluded;
}

}  // namespace chalcedony
