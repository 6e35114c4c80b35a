#include "core/gamut/gamut_within.h"

#include <array>

#include "core/color/conversion.h"

namespace chalcedony {

bool gamut_within(const Space& inner, const Space& outer) {
  if (!inner.is_rgb || !outer.is_rgb) return false;
  for (unsigned corner = 0; corner < 8; ++corner) {
    std::array<double, 3> color{};
    for (std::size_t c = 0; c < 3; ++c)
      color[c] = corner >> c & 1 ? inner.channels[c].high : inner.channels[c].low;
    const std::array<double, 3> found = convert_color(inner, outer, color);
    for (std::size_t c = 0; c < 3; ++c) {
      const ChannelInfo& range = outer.channels[c];
      const double allowed = kGamutTolerance * (range.high - range.low) / 255;
      if (!(found[c] >= range.low - allowed && found[c] <= range.high + allowed)) return false;
    }
  }
  return true;
}

bool may_leave_gamut(const PictureInfo& picture, const PictureInfo& stored) {
  return !picture.codes_in_range() || !gamut_within(*picture.space, *stored.space);
}

}  // namespace chalcedony
