// Color conversions a second, plain way: one color at a time, in double, with the matrices as CSS
// Color 4 prints them. Nothing here is shared with the program.
#ifndef CHALCEDONY_TESTS_SUPPORT_PLAIN_COLOR_H_
#define CHALCEDONY_TESTS_SUPPORT_PLAIN_COLOR_H_

#include <array>
#include <string>

namespace chalcedony::test {

using Triple = std::array<double, 3>;

/// An sRGB color in 0-255 in the space of this identifier, in the contract's units. A gray fills
/// all three.
Triple plain_from_srgb(const std::string& space, const Triple& srgb);

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_PLAIN_COLOR_H_
