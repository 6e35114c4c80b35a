// The correction of light that brings patches of a picture nearest to the colors they are known to
// have.
#ifndef CHALCEDONY_CORE_BALANCE_COLOR_CORRECTION_H_
#define CHALCEDONY_CORE_BALANCE_COLOR_CORRECTION_H_

#include <array>
#include <cstddef>
#include <vector>

#include "core/balance/camera_tone.h"
#include "core/color/affine.h"

namespace chalcedony {

/// A patch: the mean of its light in the picture, and of the color it is known to have.
///
/// Units     XYZ, white D50, Y = 1 for white
struct KnownPatch {
  std::array<double, 3> found{};
  std::array<double, 3> known{};
};

/// First the tone curve of the camera is undone, on r g b of srgb-linear, then comes a matrix of
/// XYZ, white D50.
struct ColorCorrection {
  CameraTone tone;
  Affine matrix;

  /// Corrected light of XYZ, white D50, Y = 1 for white.
  std::array<double, 3> of(const std::array<double, 3>& xyz) const;
};

/// What is fitted to patches.
enum class CorrectionKind {
  kMatrix,         // the matrix alone
  kToneAndMatrix,  // the tone curve too
};

/// With fewer patches there is nothing left to see how well the correction does.
constexpr std::size_t fewest_patches(CorrectionKind kind) {
  return kind == CorrectionKind::kMatrix ? 4 : 8;
}

/// The correction for which the sum of squared CIE 1976 differences between the corrected patches
/// and what is known of them is least. The matrix has no shift: no light stays no light. The tone
/// curve rises().
///
/// Errors    InputError: fewer than fewest_patches(), or colors that lie in one plane with black,
///           as grays alone do, which leaves the matrix open
/// Source    Levenberg (1944), Quarterly of Applied Mathematics 2, 164-168, and Marquardt (1963),
///           SIAM Journal 11, 431-441, from the linear least squares of XYZ over Y
ColorCorrection fitted_correction(const std::vector<KnownPatch>& patches, CorrectionKind kind);

/// The CIEDE2000 difference of each patch to what is known of it, corrected.
std::vector<double> differences_from_known(const std::vector<KnownPatch>& patches,
                                           const ColorCorrection& correction);

/// The same of each patch by the correction that is fitted to all others: what is to be expected of
/// colors that are not among them. NaN where the others leave the matrix open.
///
/// Range     `correction` of all patches, from which each search begins
std::vector<double> left_out_differences(const std::vector<KnownPatch>& patches,
                                         const ColorCorrection& correction, CorrectionKind kind);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_BALANCE_COLOR_CORRECTION_H_
