// How the samples of a TIFF are handed on, where they are not the numbers that stand for colors.
#ifndef CHALCEDONY_IO_PICTURE_TIFF_SAMPLES_H_
#define CHALCEDONY_IO_PICTURE_TIFF_SAMPLES_H_

#include <cstddef>
#include <cstdint>
#include <functional>
#include <span>
#include <vector>

namespace chalcedony {

/// Hands on the interleaved samples of a row.
using TiffDelivery = std::function<void(std::span<const std::byte> stored, std::byte* row)>;

TiffDelivery deliver_as_stored();

/// Gray of 8 or 16 bits whose white is 0; what follows in a pixel, such as alpha, is as it is.
TiffDelivery deliver_white_as_0(unsigned bits, std::size_t channels);

/// Codes of 8 or 16 bits of a palette, `rgb` with 16 bits for each channel of each color. What
/// follows a code in its pixel is left out.
TiffDelivery deliver_palette(unsigned bits, std::size_t channels, std::vector<std::uint16_t> rgb);

/// Samples of 1, 2 or 4 bits, several in a byte, one for each of `width` pixels: a byte each,
/// spread over 0-255 or as they are; then as `then` hands them on.
TiffDelivery deliver_packed(unsigned bits, std::size_t width, bool spread, TiffDelivery then);

/// Floats of 16 or 64 bits, as those of 32.
///
/// Source    IEEE 754-2019, 3.6 (binary16, binary64)
TiffDelivery deliver_floats(unsigned bits);

/// kCie: a and b have a sign; kIcc: they are shifted to be above 0.
enum class TiffLab : std::uint8_t { kCie, kIcc };

/// L*a*b* of 8 or 16 bits with what follows in a pixel, as floats: L 0-100, a and b as they are,
/// the rest 0-1.
///
/// Source    TIFF 6.0, section 23 (CIE L*a*b*: full scale is L 100; a step of a is 1, of 16 bits
///           1/256); ICC.1:1998-09, A.3 (of 16 bits 0xff00 is L 100, 0x8000 is a 0)
TiffDelivery deliver_lab(TiffLab lab, unsigned bits, std::size_t channels);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_TIFF_SAMPLES_H_
