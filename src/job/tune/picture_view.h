// The pixels of a picture that its page shows, with the values of its channels.
#ifndef CHALCEDONY_JOB_TUNE_PICTURE_VIEW_H_
#define CHALCEDONY_JOB_TUNE_PICTURE_VIEW_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/channel/channel.h"
#include "core/pixel/block_reader.h"
#include "job/histogram/class_source.h"
#include "job/picture/inputs.h"
#include "job/run/context.h"

namespace chalcedony {

/// Every n-th pixel of every n-th row, from the first on, as it is: not an average, which no pixel
/// would be. Pixels that are alike in their channels, their color and their class are of one kind.
struct PictureView {
  static constexpr std::uint32_t kNoKind = 0xffffff;  // of pixels that do not count

  std::uint32_t step = 1;               // pixels of the picture from one to the next
  std::uint32_t width = 0, height = 0;  // how many are seen
  std::uint64_t counted = 0;            // of these
  std::size_t kinds = 0;
  std::vector<float> values;           // channel by channel: one for each kind
  std::vector<std::uint8_t> rgb;       // sRGB of each kind, as it is shown
  std::vector<std::uint8_t> classes;   // of each kind, from 1 on; 0 is none
  std::vector<std::uint32_t> kind_of;  // of each pixel, row by row
};

/// One pass over the picture, together with its classes if there are some (not null). At most
/// `most` pixels are seen along the longest side.
///
/// Errors    InputError when it is damaged, or no pixel that is seen counts
PictureView picture_view(CountedPicture& picture, ClassSource* classes,
                         const std::vector<Channel>& channels, std::uint32_t most,
                         const SharedOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_TUNE_PICTURE_VIEW_H_
