// Colors that an RGB space cannot show, brought into it with their hue and lightness kept.
#ifndef CHALCEDONY_CORE_GAMUT_GAMUT_MAP_H_
#define CHALCEDONY_CORE_GAMUT_GAMUT_MAP_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/color/conversion.h"
#include "core/pixel/block.h"
#include "core/pixel/color_memo.h"
#include "core/pixel/raster.h"
#include "core/planes.h"

namespace chalcedony {

/// What became of 8-bit colors out of gamut, rounded to 8 bits; threads share it.
class MappedColors {
 public:
  /// Whether looking a color up is worth it: the picture is no small one, its colors are of three
  /// 8-bit channels, and so are those they become.
  static bool fits(const PictureInfo& from, const PictureInfo& to);

  /// r g b in 0-255; nothing when that color was not noted. `color`: its color_number().
  std::optional<std::array<std::uint8_t, 3>> find(std::uint32_t color);
  void note(std::uint32_t color, const std::array<std::uint8_t, 3>& mapped);

 private:
  NumberByColor<std::uint32_t> mapped_;
};

/// One for each thread.
class GamutMap {
 public:
  /// `known`: shared by all threads, or null to map every color. May be given where
  /// MappedColors::fits() says so.
  ///
  /// Range     an RGB space
  explicit GamutMap(const Space& rgb, MappedColors* known = nullptr);

  /// Reduces the chroma of the colors that lie outside until they are within, or so near that
  /// clipping is not seen (0.02 in oklab). Colors within stay as they are.
  ///
  /// Units     r g b in 0-255, changed in place; n pixels, at most kBlockPixels
  /// Source    CSS Color Module Level 4, 13.2: gamut mapping by binary search of the chroma in
  ///           oklch with local clipping
  void run(const Planes& rgb, std::size_t n);

  /// The same of the colors of a Block, which are `rgb` now. Where colors are known they come out
  /// rounded to 8 bits.
  void run(const Block& block, std::uint32_t stored_channels, const Planes& rgb);

 private:
  struct Search {
    float low, high;
    bool low_within;
    bool done;
  };

  void find_outside(const Planes& rgb, std::size_t n);
  void take_known(const Block& block, std::uint32_t stored_channels, const Planes& rgb);
  void note_mapped(const Planes& rgb);
  void map_outside(const Planes& rgb);
  void gather(const Planes& rgb);
  void try_chroma();
  bool settle(std::size_t i);

  Conversion to_oklch_, from_oklch_, to_oklab_, from_oklab_;
  MappedColors* known_;
  std::vector<std::size_t> pixels_;    // those outside, of which nothing is known
  std::vector<std::uint32_t> colors_;  // theirs as stored
  std::vector<Search> searches_;
  std::vector<std::byte> rounded_;  // what those become
  // Of the colors outside: as they are, with the chroma tried, that color in the RGB space and
  // clipped, and both in oklab.
  PlaneBuffer origin_, tried_, shown_, clipped_, tried_lab_, clipped_lab_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_GAMUT_GAMUT_MAP_H_
