// The pixels of a picture that its page shows, with the values of its channels.
#ifndef CHALCEDONY_JOB_TUNE_PICTURE_VIEW_H_
#define CHALCEDONY_JOB_TUNE_PICTURE_VIEW_H_

#include <array>
#include <bit>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/channel/channel.h"
#include "core/pixel/block_reader.h"
#include "core/pixel/raster.h"
#include "core/stats/distinct_rows.h"
#include "job/histogram/class_source.h"
#include "job/picture/inputs.h"
#include "job/run/context.h"

namespace chalcedony {

/// The words of a kind of pixels: the bits of its value in each channel, then its color and class.
class KindWords {
 public:
  explicit KindWords(std::size_t channels) : channels_(channels) {}

  std::size_t words() const { return channels_ + 1; }
  static float value(const std::uint32_t* kind, std::size_t channel) {
    return std::bit_cast<float>(kind[channel]);
  }
  /// The sRGB color and the class, from 1 on, 0 for none.
  static std::uint32_t look(const std::array<std::uint32_t, 3>& rgb, std::uint8_t its_class) {
    return rgb[0] | rgb[1] << 8 | rgb[2] << 16 | std::uint32_t{its_class} << 24;
  }
  std::uint8_t color(const std::uint32_t* kind, unsigned c) const {
    return static_cast<std::uint8_t>(kind[channels_] >> 8 * c);
  }
  std::uint8_t class_of(const std::uint32_t* kind) const {
    return static_cast<std::uint8_t>(kind[channels_] >> 24);
  }

 private:
  std::size_t channels_;
};

/// Every n-th pixel of every n-th row, from the first on, as it is: not an average, which no pixel
/// would be. Pixels that are alike in their channels, their color and their class are of one kind.
struct PictureView {
  static constexpr std::uint32_t kNoKind = 0xffffff;  // of pixels that do not count

  std::uint32_t step = 1;               // pixels of the picture from one to the next
  std::uint32_t width = 0, height = 0;  // how many are seen
  std::uint64_t counted = 0;            // of these
  DistinctRows kinds;                   // KindWords
  std::vector<std::uint32_t> kind_of;   // of each pixel, row by row

  explicit PictureView(std::size_t channels) : kinds(KindWords(channels).words()) {}
};

/// The least n of which at most `most` pixels are seen along the longest side.
std::uint32_t step_for(const RasterShape& picture, std::uint32_t most);
/// How many pixels are seen along a side with that step.
inline std::uint32_t seen_along(std::uint32_t side, std::uint32_t step) {
  return (side + step - 1) / step;
}

/// One pass over the picture, together with its classes if there are some (not null). At most
/// `most` pixels are seen along the longest side.
///
/// Errors    InputError when it is damaged, or no pixel that is seen counts
PictureView picture_view(CountedPicture& picture, ClassSource* classes,
                         const std::vector<Channel>& channels, std::uint32_t most,
                         const SharedOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_TUNE_PICTURE_VIEW_H_
