#include "core/balance/color_corrector.h"

namespace chalcedony {
namespace {

/// Where the matrix begins.
const Space& mapped_from(const ColorCorrection& correction, const Space& space) {
  return correction.tone.is_straight() ? space : spaces::kSrgbLinear;
}

}  // namespace

ColorCorrector::ColorCorrector(const ColorCorrection& correction, const Space& space)
    : tone_(correction.tone),
      to_rgb_light_(space, mapped_from(correction, space)),
      map_(Conversion::mapped_in(mapped_from(correction, space), spaces::kXyzD50, correction.matrix,
                                 space)) {}

void ColorCorrector::run(const ConstPlanes& in, const Planes& out, std::size_t n) const {
  if (tone_.is_straight()) {
    map_.run(in, out, n);
    return;
  }
  to_rgb_light_.run(in, out, n);
  undo_tone(tone_, read_only(out), out, n);
  map_.run(read_only(out), out, n);
}

}  // namespace chalcedony
