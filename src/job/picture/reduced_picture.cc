#include "job/picture/reduced_picture.h"

#include "core/pixel/block_reader.h"
#include "job/picture/preview.h"

namespace chalcedony {

Thumbnail reduced_picture(CountedPicture& picture, const SharedOptions& options,
                          const Context& context, std::uint32_t most_width,
                          std::uint32_t most_height) {
  Preview preview(picture.file.info, true, most_width, most_height);
  const auto make_worker = [&] {
    return [reader = BlockReader(picture.file.info, picture.counting),
            collector = Preview::Collector(preview)](const Band& band) mutable {
      reader.for_each_block(band, [&](const Block& block) { collector.add(block); });
      return true;
    };
  };
  travel(*picture.file.rows, road_for(picture, options, context), make_worker, [](bool) {});
  return preview.thumbnail();
}

}  // namespace chalcedony
