// The tone curve of a camera, undone.
#ifndef CHALCEDONY_CORE_BALANCE_CAMERA_TONE_H_
#define CHALCEDONY_CORE_BALANCE_CAMERA_TONE_H_

#include <array>
#include <cstddef>

#include "core/planes.h"

namespace chalcedony {

/// A curve from light of a picture to light in front of the camera, the same for r, g and b.
/// Cameras bend light so that pictures look crisp: what is dark becomes darker, what is bright
/// brighter.
///
/// On square roots u of linear light, 0 to 1, it is u + u (1 - u) (b0 + b1 u + b2 u^2), which keeps
/// both ends; straight above 1, and odd.
struct CameraTone {
  static constexpr std::size_t kTerms = 3;
  std::array<double, kTerms> bend{};  // 0: nothing is undone

  bool is_straight() const { return bend == std::array<double, kTerms>{}; }

  /// Whether it rises everywhere, by a tenth of a straight line or more.
  bool rises() const;

  /// Of linear light, 1 is full.
  double at(double light) const;

  /// How at() changes with each of `bend`.
  std::array<double, kTerms> slopes_by_bend(double light) const;
};

/// Takes n pixels of linear light through the curve.
///
/// Units     0-255, as srgb-linear
/// Shape     planes padded as in planes.h; `out` may be `in`
/// Accuracy  1e-4 of 255 up to 255, against at()
void undo_tone(const CameraTone& tone, const ConstPlanes& in, const Planes& out, std::size_t n);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_BALANCE_CAMERA_TONE_H_
