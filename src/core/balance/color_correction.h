// The linear map of light that brings patches of a picture nearest to the colors they are known to
// have.
#ifndef CHALCEDONY_CORE_BALANCE_COLOR_CORRECTION_H_
#define CHALCEDONY_CORE_BALANCE_COLOR_CORRECTION_H_

#include <array>
#include <cstddef>
#include <vector>

#include "core/color/affine.h"

namespace chalcedony {

/// A patch: the mean of its light in the picture, and of the color it is known to have.
///
/// Units     XYZ, white D50, Y = 1 for white
struct KnownPatch {
  std::array<double, 3> found{};
  std::array<double, 3> known{};
};

/// With fewer there is nothing left to see how well the map does.
inline constexpr std::size_t kFewestPatches = 4;

/// The matrix for which the sum of squared CIE 1976 differences between the mapped patches and
/// what is known of them is least. It has no shift: no light stays no light.
///
/// Errors    InputError: fewer than kFewestPatches, or colors that lie in one plane with black, as
///           grays alone do, which leaves the matrix open
/// Source    Levenberg (1944), Quarterly of Applied Mathematics 2, 164-168, and Marquardt (1963),
///           SIAM Journal 11, 431-441, from the linear least squares of XYZ over Y
Affine fitted_correction(const std::vector<KnownPatch>& patches);

/// The CIEDE2000 difference of each patch to what is known of it, mapped by `correction`.
std::vector<double> differences_from_known(const std::vector<KnownPatch>& patches,
                                           const Affine& correction);

/// The same of each patch by the matrix that is fitted to all others: what is to be expected of
/// colors that are not among them. NaN where the others leave the matrix open.
///
/// Range     `correction` of all patches, from which each search begins
std::vector<double> left_out_differences(const std::vector<KnownPatch>& patches,
                                         const Affine& correction);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_BALANCE_COLOR_CORRECTION_H_
