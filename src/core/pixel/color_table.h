// The distinct stored colors of a picture with their counts. Where positions do not matter, work
// runs on these instead of on every pixel.
#ifndef CHALCEDONY_CORE_PIXEL_COLOR_TABLE_H_
#define CHALCEDONY_CORE_PIXEL_COLOR_TABLE_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <functional>
#include <span>
#include <vector>

#include "core/pixel/block.h"
#include "core/pixel/color_number.h"
#include "core/pixel/large_vector.h"
#include "core/pixel/raster.h"
#include "core/pixel/zeroed_array.h"

namespace chalcedony {

/// Colors as rows of an interleaved 8-bit picture, kBlockPixels wide, so that they travel the road
/// like any other. The last row is filled up with colors that no pixel has.
struct ColorTable {
  std::uint64_t colors = 0;
  RasterShape shape;
  std::vector<std::byte> rgb;
  LargeVector<std::uint32_t> counts;  // pixels of each color; 0 for those that fill up

  /// A Block of this table, read by a BlockReader, with the pixels each color stands for.
  Block weighted(const Block& block) const {
    Block out = block;
    out.weights = counts.data() + block.first_pixel;
    return out;
  }
};

/// Some counted colors that follow one another.
struct ColorPiece {
  std::size_t first = 0;                  // place of the first one among all
  std::size_t size = 0;                   // at most kBlockPixels
  const std::byte* rgb = nullptr;         // interleaved
  const std::uint32_t* pixels = nullptr;  // of each
};

/// Counts colors of three 8-bit channels in one table for all of them: 16.7 million counters of a
/// byte, of which only the parts that are used take memory (16 MiB at most), and a list of those
/// that were full. A gray is a color with three equal channels.
class ColorCounter {
 public:
  /// A picture of fewer pixels is done sooner pixel by pixel than color by color.
  static constexpr std::uint64_t kFewPixels = 500'000;

  /// Whether the colors of such a picture can be counted: three 8-bit channels or a gray, alpha
  /// that leaves them as they are, and no more pixels than a counter holds.
  static bool fits(const PictureInfo& info);

  ColorCounter();

  /// Adds n stored pixels of `channels` samples each: the color first, gray when they are one or
  /// two, then alpha.
  void add_stored(const std::byte* stored, std::uint32_t channels, std::size_t n);
  /// Adds colors by their numbers.
  void add(std::span<const std::uint32_t> numbers);
  /// Adds what another one counted.
  void add(ColorCounter&& other);

  /// How many colors were counted.
  std::size_t colors();

  /// Calls use(piece) for all counted colors, which are in the order of their numbers; several
  /// pieces at once, in no certain order.
  void for_each_piece(const std::function<void(const ColorPiece&)>& use);

  /// All of them.
  ColorTable table();

 private:
  template <class Number>
  friend class ColorLookup;

  /// Calls use(color, pixels) for the colors from `begin` to `end` that some pixel has, in order.
  /// Nothing is left in `full_`.
  template <class Use>
  void for_each_color(std::size_t begin, std::size_t end, Use use) const;
  template <class Use>
  void for_each_eight(std::size_t begin, std::size_t end, Use use) const;

  /// Adds `full_` to `often_`, so that memory grows with the colors, not with the picture.
  void settle();

  /// Settles, and counts the colors in `before_parts_` unless that was done since the last pixel.
  void count_colors();
  /// Adds the counters of other's colors from `begin` to `end`; those that were full then are noted
  /// in `full`.
  void add_counters(const ColorCounter& other, std::size_t begin, std::size_t end,
                    std::vector<std::uint32_t>& full);

  /// What is done less often than pixels are counted: a color is new, or its counter was full, as
  /// its pixels, counted in a byte, tell.
  void note(std::uint32_t color, std::uint8_t pixels);

  /// A color whose counter was full: 256 pixels each time.
  struct Often {
    std::uint32_t color;
    std::uint32_t times;
  };
  static constexpr std::size_t kMostFull = 1u << 15;

  /// Each color of `more`, once and in order, joins `often_`.
  void add_often(const std::vector<Often>& more);

  /// So many similar colors are passed over together when no pixel has one of them.
  static constexpr std::size_t kGroup = 4096;

  ZeroedArray<std::uint8_t> counters_;
  std::array<bool, kColorNumbers / kGroup> in_use_{};  // groups of which some pixel has a color
  std::vector<std::uint32_t> full_;  // colors whose counter was full since they were settled
  std::vector<Often> often_;         // each color once, in order
  // How many of the colors before each part of them some pixel has; the number of all comes last.
  // Empty as long as pixels are added.
  std::vector<std::size_t> before_parts_;
};

/// A number for each counted color, to be found again by the color. Takes as much memory as 16.7
/// million such numbers at most; bytes take the room of the counters, which are given up.
template <class Number>
class ColorLookup {
 public:
  /// `numbers`: one for each color, in the order of the table; more than there are colors do no
  /// harm.
  ColorLookup(ColorCounter&& counter, std::span<const Number> numbers);

  /// The numbers of n stored pixels; 0 for a color that was not counted.
  void find(const std::byte* stored, std::uint32_t channels, std::size_t n, Number* found) const;

 private:
  static ZeroedArray<Number> numbered(ColorCounter counted, std::span<const Number> numbers);

  ZeroedArray<Number> numbers_;
};

extern template class ColorLookup<std::uint8_t>;
extern template class ColorLookup<std::uint32_t>;

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_COLOR_TABLE_H_
