// CIE 15:2018, 8.2: lightness is a cube root of Y / Yn down to a small value, and a line below it.
#ifndef CHALCEDONY_CORE_COLOR_CIE_LIGHTNESS_H_
#define CHALCEDONY_CORE_COLOR_CIE_LIGHTNESS_H_

namespace chalcedony {

/// The value of Y / Yn where the line ends, (6/29)^3.
template <class Real>
constexpr Real kCieEpsilon = Real{216} / Real{24389};
/// The slope of the line in lightness of 0-100, (29/3)^3.
template <class Real>
constexpr Real kCieKappa = Real{24389} / Real{27};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_CIE_LIGHTNESS_H_
