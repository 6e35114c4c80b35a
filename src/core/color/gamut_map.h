// Colors that an RGB space cannot show, brought into it with their hue and lightness kept.
#ifndef CHALCEDONY_CORE_COLOR_GAMUT_MAP_H_
#define CHALCEDONY_CORE_COLOR_GAMUT_MAP_H_

#include <cstddef>
#include <vector>

#include "core/color/conversion.h"
#include "core/pixel/planes.h"

namespace chalcedony {

/// One for each thread.
class GamutMap {
 public:
  /// Range     an RGB space
  explicit GamutMap(const Space& rgb);

  /// Reduces the chroma of the colors that lie outside until they are within, or so near that
  /// clipping is not seen (0.02 in oklab). Colors within stay as they are.
  ///
  /// Units     r g b in 0-255, changed in place; n pixels, at most kBlockPixels
  /// Source    CSS Color Module Level 4, 13.2: gamut mapping by binary search of the chroma in
  /// oklch
  ///           with local clipping
  void run(const Planes& rgb, std::size_t n);

 private:
  struct Search {
    float low, high;
    bool low_within;
    bool done;
  };

  void gather(const Planes& rgb, std::size_t n);
  void try_chroma();
  bool settle(std::size_t i);

  Conversion to_oklch_, from_oklch_, to_oklab_, from_oklab_;
  std::vector<std::size_t> pixels_;  // those outside
  std::vector<Search> searches_;
  // Of the colors outside: as they are, with the chroma tried, that color in the RGB space and
  // clipped, and both in oklab.
  PlaneBuffer origin_, tried_, shown_, clipped_, tried_lab_, clipped_lab_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_GAMUT_MAP_H_
