// A color correction on pixels of a picture.
#ifndef CHALCEDONY_CORE_BALANCE_COLOR_CORRECTOR_H_
#define CHALCEDONY_CORE_BALANCE_COLOR_CORRECTOR_H_

#include <cstddef>

#include "core/balance/color_correction.h"
#include "core/color/conversion.h"
#include "core/color/space.h"
#include "core/planes.h"

namespace chalcedony {

/// Const, so that all threads may share it.
class ColorCorrector {
 public:
  /// `space`: of the pixels, an RGB space.
  ColorCorrector(const ColorCorrection& correction, const Space& space);

  /// Corrects n pixels; what then lies outside the space's range stays there.
  ///
  /// Units     0-255
  /// Shape     planes padded as in planes.h; `out` may be `in`
  void run(const ConstPlanes& in, const Planes& out, std::size_t n) const;

 private:
  CameraTone tone_;
  Conversion to_rgb_light_, map_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_BALANCE_COLOR_CORRECTOR_H_
