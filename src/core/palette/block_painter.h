// The nearest color of a palette for the pixels of a Block, and how far it is from them.
#ifndef CHALCEDONY_CORE_PALETTE_BLOCK_PAINTER_H_
#define CHALCEDONY_CORE_PALETTE_BLOCK_PAINTER_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/channel/channel_plan.h"
#include "core/palette/nearest_color.h"
#include "core/pixel/block.h"
#include "core/pixel/color_memo.h"

namespace chalcedony {

/// Differences of pixels to the colors they are painted with. One for each thread.
class PaintError {
 public:
  /// Shape     at most 255 colors
  explicit PaintError(const std::vector<Color>& palette);

  /// CIEDE2000 between n pixels in `lab` and the colors of these numbers, 1 for the first; for a
  /// pixel of number 0 anything.
  ///
  /// Shape     planes padded as in planes.h, of at most kBlockPixels; `errors` padded likewise
  void measure(const ConstPlanes& lab, const std::uint8_t* numbers, std::size_t n, float* errors);

 private:
  std::vector<std::array<double, 3>> labs_;
  PlaneBuffer painted_;
};

/// What 8-bit colors are painted with; threads share it.
class PaintByColor {
 public:
  /// Looks up the colors of a Block whose pixels have so many stored channels.
  void find(const Block& block, std::uint32_t channels, FoundColors& found, std::uint8_t* numbers,
            float* errors);
  /// Notes what the unknown colors are painted with, one after the other.
  void note(const FoundColors& found, const std::uint8_t* numbers, const float* errors);

 private:
  ColorMemo numbers_;
  NumberByColor<float> errors_;
};

/// Paints Blocks of one picture with the nearest colors of a palette. One for each thread.
class BlockPainter {
 public:
  /// The channels it needs, of which a plan's first must be.
  static std::vector<Channel> channels(DifferenceFormula formula);

  /// `known`: shared by all threads, or null to measure every pixel. May be given where
  /// ColorMemo::pays() says so.
  BlockPainter(const ChannelPlan& plan, const std::vector<Color>& palette,
               DifferenceFormula formula, PaintByColor* known = nullptr);

  /// The number of the color nearest to each pixel, 1 for the first, and how far it is by
  /// CIEDE2000; of those that do not count too.
  ///
  /// Shape     arrays padded as in planes.h
  void paint(const Block& block, std::uint8_t* numbers, float* errors);

 private:
  void measure(const Block& block, std::uint8_t* numbers, float* errors);

  ChannelEvaluator channels_;
  DifferenceFormula formula_;
  NearestColor nearest_;
  PaintError error_;
  PaintByColor* known_;
  std::uint32_t stored_channels_;
  FoundColors found_;
  PickedPixels picked_;
  std::vector<std::uint8_t> asked_numbers_;
  std::vector<float> asked_errors_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_BLOCK_PAINTER_H_
