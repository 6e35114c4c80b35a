#include "job/map/close_ups.h"

#include <utility>

#include "core/pixel/block_reader.h"
#include "core/pixel/cut_outs.h"
#include "core/pixel/memory_source.h"
#include "core/pixel/road.h"
#include "job/picture/preview.h"

namespace chalcedony {
namespace {

constexpr std::uint32_t kAround = 8;         // sides of a place that are seen
constexpr std::uint32_t kMostCloseUp = 256;  // pixels

Thumbnail thumbnail_of(PictureInfo info, CutOut cut) {
  info.shape = cut.shape;
  Preview preview(info, true, kMostCloseUp, kMostCloseUp);
  MemorySource rows(cut.shape, std::move(cut.samples));
  const auto make_worker = [&] {
    return [reader = BlockReader(info, {}),
            collector = Preview::Collector(preview)](const Band& band) mutable {
      reader.for_each_block(band, [&](const Block& block) { collector.add(block); });
      return true;
    };
  };
  travel(rows, {}, make_worker, [](bool) {});
  Thumbnail seen = preview.thumbnail();
  seen.pixels_per_cell *= cut.step;
  return seen;
}

}  // namespace

std::vector<CloseUp> close_ups(PictureFile& picture, const std::vector<PixelRect>& places,
                               std::uint32_t around) {
  std::vector<PixelRect> seen_around;
  for (const PixelRect& place : places)
    seen_around.push_back(square_about(place.x + place.width / 2.0, place.y + place.height / 2.0,
                                       around > 0 ? around : kAround * place.width,
                                       picture.info.shape));
  picture.rows->rewind();
  std::vector<CutOut> cut = cut_out(*picture.rows, seen_around, kMostCloseUp);
  std::vector<CloseUp> seen;
  for (std::size_t i = 0; i < cut.size(); ++i)
    seen.push_back({thumbnail_of(picture.info, std::move(cut[i])),
                    {places[i].x - seen_around[i].x, places[i].y - seen_around[i].y,
                     places[i].width, places[i].height}});
  return seen;
}

}  // namespace chalcedony
