// Sums over the pixels of a picture, the same for any number of threads.
#ifndef CHALCEDONY_JOB_PICTURE_BAND_SUMS_H_
#define CHALCEDONY_JOB_PICTURE_BAND_SUMS_H_

#include "job/picture/inputs.h"

namespace chalcedony {

/// Adds to `sums`, which is empty, those of each band of a picture, in order. `make_summer()` is
/// called once a thread; what it gives is called as `add(sums_of_band, block)`.
template <class Sums, class MakeSummer>
void sum_bands(CountedPicture& picture, const SharedOptions& options, const Context& context,
               Sums& sums, const MakeSummer& make_summer) {
  const Sums empty = sums;
  const auto make_worker = [&] {
    return [&, reader = BlockReader(picture.file.info, picture.counting),
            add = make_summer()](const Band& band) mutable {
      Sums out = empty;
      reader.for_each_block(band, [&](const Block& block) { add(out, block); });
      return out;
    };
  };
  travel(*picture.file.rows, road_for(picture, options, context), make_worker,
         [&](const Sums& band) { sums += band; });
}

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_BAND_SUMS_H_
