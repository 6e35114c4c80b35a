// A picture written again with its colors changed, Block by Block.
#ifndef CHALCEDONY_JOB_PICTURE_CHANGED_PICTURE_H_
#define CHALCEDONY_JOB_PICTURE_CHANGED_PICTURE_H_

#include <cstddef>
#include <filesystem>
#include <string_view>

#include "core/gamut/gamut_count.h"
#include "core/pixel/block_writer.h"
#include "io/picture/create_picture.h"
#include "job/picture/inputs.h"
#include "job/picture/picture_output.h"

namespace chalcedony {

/// What was found on the way.
struct ChangedPicture {
  std::filesystem::path output;
  std::uint64_t counted = 0;
  Excluded excluded;
  GamutCount gamut;  // what the file cuts off
};

/// Writes a picture of the same kind and space as an input, named as `place` has it for `thing`.
/// `make_change()` is called once a thread; what it gives is called as `change(block)` and returns
/// the channels that are written.
///
/// Errors    as create_picture() and PictureOutput::path()
template <class MakeChange>
ChangedPicture write_changed(CountedPicture& picture, const PictureOutput& place,
                             std::string_view thing, const SharedOptions& options,
                             const Context& context, const MakeChange& make_change) {
  struct ChangedBand {
    Excluded excluded;
    GamutCount gamut;
  };
  const PictureInfo& info = picture.file.info;
  ChangedPicture changed;
  PictureSpec spec = spec_like(info);
  changed.output = place.path(picture.file.path, thing, spec.shape.sample);
  spec.shape.sample = sample_for(changed.output, spec.shape.sample);
  spec.carried = picture.file.facts.carried;
  const auto writer = create_picture(changed.output, spec);
  const BlockWriter stored(info_of(spec));
  const auto make_worker = [&] {
    return [&, reader = BlockReader(info, picture.counting), change = make_change()](
               const Band& band, std::byte* samples) mutable {
      ChangedBand out;
      reader.for_each_block(band, [&](const Block& block) {
        const ConstPlanes color = change(block);
        stored.write(color, block.alpha, block.size, samples);
        samples += block.size * spec.shape.pixel_bytes();
        out.gamut.add(block, color, stored.info());
      });
      out.excluded = reader.take_excluded();
      return out;
    };
  };
  travel_to_picture(*picture.file.rows, road_for(picture, options, context), spec.shape, *writer,
                    make_worker, [&](const ChangedBand& band) {
                      changed.excluded += band.excluded;
                      changed.gamut += band.gamut;
                    });
  writer->finish();
  changed.counted = info.shape.pixels() - changed.excluded.total();
  return changed;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_CHANGED_PICTURE_H_
