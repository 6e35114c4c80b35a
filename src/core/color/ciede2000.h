// The CIEDE2000 color difference.
#ifndef CHALCEDONY_CORE_COLOR_CIEDE2000_H_
#define CHALCEDONY_CORE_COLOR_CIEDE2000_H_

#include <array>
#include <cstddef>

#include "core/planes.h"

namespace chalcedony {

/// The difference of two Lab colors, with all parametric factors 1.
///
/// Units     Lab as in the contract; the result in units of delta E
/// Accuracy  4 decimals of the published table of 34 pairs (ciede2000_test.cc)
/// Source    Sharma, Wu and Dalal (2005), Color Research and Application 30(1), 21-30
double ciede2000(const std::array<double, 3>& lab1, const std::array<double, 3>& lab2);

/// The differences of n colors to one.
///
/// Shape     three Lab planes and `differences`, padded as in planes.h; `differences` may be one of
///           the planes
/// Accuracy  within 1e-3 of ciede2000(), or 1e-5 of the difference when that is more
void ciede2000_to(const std::array<double, 3>& lab, const ConstPlanes& labs, std::size_t n,
                  float* differences);

/// The same where only differences up to a limit matter: what is surely above it may be infinity.
/// `differences` is none of the planes.
void ciede2000_within(const std::array<double, 3>& lab, const ConstPlanes& labs, std::size_t n,
                      double limit, float* differences);

/// The differences of n pairs of colors, with the contract of ciede2000_to().
void ciede2000_between(const ConstPlanes& labs1, const ConstPlanes& labs2, std::size_t n,
                       float* differences);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_CIEDE2000_H_
