// How often each 8-bit code is stored, channel by channel: all that a histogram of a picture's own
// channels asks of it.
#ifndef CHALCEDONY_CORE_STATS_CODE_COUNTS_H_
#define CHALCEDONY_CORE_STATS_CODE_COUNTS_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/channel/channel.h"
#include "core/pixel/raster.h"

namespace chalcedony {

/// The stored sample that alone decides a channel of such a picture: the sample itself, a channel
/// of the picture's own space, any channel of a gray sRGB picture. None for all others, for hues
/// (which ask whether a pixel is gray), and where samples are not 8-bit or are premultiplied.
std::optional<std::uint32_t> deciding_sample(const Channel& channel, const PictureInfo& info);

/// Counts of the codes 0 to 255 of each stored sample of a pixel.
class CodeCounts {
 public:
  using Counts = std::array<std::uint32_t, 256>;
  /// Tables of one channel, taken in turn by the pixels: neighbors are alike, and a counter that
  /// was just written is slow to read again.
  static constexpr std::size_t kTables = 4;
  using Tables = std::array<Counts, kTables>;

  /// `channels` samples a pixel, at least one.
  explicit CodeCounts(std::uint32_t channels = 1);

  /// Adds n pixels as stored. In all, no more than 2^32 - 1 pixels can be counted.
  void add(const std::byte* stored, std::size_t n);
  void merge(const CodeCounts& other);

  Counts of(std::uint32_t channel) const;

 private:
  std::vector<Tables> counts_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_CODE_COUNTS_H_
