// Filters over bands of a picture with halos, channel by channel.
#ifndef CHALCEDONY_CORE_FILTER_BAND_FILTER_H_
#define CHALCEDONY_CORE_FILTER_BAND_FILTER_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/filter/extreme.h"
#include "core/filter/tile.h"
#include "core/filter/window.h"
#include "core/pixel/band.h"
#include "core/pixel/block_reader.h"
#include "core/pixel/block_writer.h"

namespace chalcedony {

enum class FilterKind {
  kMean,
  kGaussian,  // the radius is its standard deviation
  kMedian,
  kMinimum,
  kMaximum,
  kOpening,  // the greatest of the least: takes away what is bright and smaller than the window
  kClosing,  // the least of the greatest: what is dark and smaller
};

struct Filter {
  FilterKind kind = FilterKind::kMean;
  Element element;  // a disk or a box; its radius in pixels
};

/// Rows and columns of neighborhood that a filter looks at on each side.
std::uint32_t halo_of(const Filter& filter);

/// Filters one band at a time. Pixels that do not count stay as they are and lend nothing to their
/// neighbors; a pixel lends as much to a mean as its alpha says. Beyond its edges a picture goes on
/// as its mirror image. Alpha stays as it is. One for each thread.
class BandFilter {
 public:
  /// `stored` says how the filtered rows are written; it is of the picture's size and space.
  BandFilter(const PictureInfo& info, Counting counting, const Filter& filter,
             const BlockWriter& stored);

  /// Writes the band's own rows, filtered. The band has a halo of halo_of(filter).
  void run(const Band& band, std::byte* rows);

  /// What did not count among the band's own pixels since the last call.
  Excluded take_excluded();

 private:
  void read(const Band& band);
  void read_row(const Band& band, std::int64_t y, std::size_t line);
  void filter_channel(std::size_t c);
  void extreme(const Tile& values, Extreme which, std::size_t margin, Tile& out);
  void write(const Band& band, std::byte* rows);

  PictureInfo info_;
  Filter filter_;
  Window window_;
  std::vector<float> gaussian_;
  std::size_t halo_;
  const BlockWriter& stored_;
  BlockReader reader_;
  std::size_t channels_;
  bool all_lend_ = true;  // every pixel of the band and its halo, and all alike
  std::array<Tile, 3> values_, filtered_;
  Tile weights_;
  PlaneBuffer planes_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_BAND_FILTER_H_
