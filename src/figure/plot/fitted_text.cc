#include "figure/plot/fitted_text.h"

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

namespace chalcedony {
namespace {

// Advance widths of a common sans-serif typeface, from the space to the tilde, in hundredths of its
// size.
constexpr std::array<std::uint8_t, 95> kAsciiWidths{
    32, 40, 46, 84, 64, 95, 78, 27, 39, 39, 50, 84, 32, 36,  32, 34, 64, 64, 64,  //
    64, 64, 64, 64, 64, 64, 64, 34, 34, 84, 84, 84, 53, 100, 68, 69, 70, 77, 63,  //
    58, 77, 75, 29, 29, 66, 56, 86, 75, 79, 60, 79, 69, 63,  61, 73, 68, 99, 69,  //
    61, 69, 39, 34, 39, 84, 50, 50, 61, 63, 55, 63, 62, 35,  63, 63, 28, 28, 58,  //
    28, 97, 63, 61, 63, 63, 41, 52, 39, 63, 59, 82, 59, 59,  52, 64, 34, 64, 84};
constexpr double kOtherWidth = 0.7, kWideWidth = 1;  // of letters beyond ASCII, in sizes
constexpr unsigned char kFirstWide = 0xe2;           // the first byte of signs and of East Asia
constexpr double kPixelsOfPoint = 1.36;              // 4/3, and some room
constexpr std::size_t kLeastLetters = 8;
constexpr double kRounding = 0.01;

/// Where each letter begins, and the end of the last one.
std::vector<std::size_t> letters_of(std::string_view text) {
  std::vector<std::size_t> begins;
  for (std::size_t i = 0; i < text.size(); ++i)
    if ((static_cast<unsigned char>(text[i]) & 0xc0) != 0x80) begins.push_back(i);
  begins.push_back(text.size());
  return begins;
}

}  // namespace

double text_width(std::string_view text, int points) {
  double sizes = 0;
  for (const char byte : text) {
    const auto code = static_cast<unsigned char>(byte);
    if (code >= ' ' && code <= '~') {
      sizes += kAsciiWidths[code - ' '] / 100.0;
    } else if ((code & 0xc0) != 0x80) {
      sizes += code < kFirstWide ? kOtherWidth : kWideWidth;
    }
  }
  return kPixelsOfPoint * points * sizes;
}

std::string fitted_text(std::string_view text, double width, int points) {
  // A width that was worked out for this very text may have lost its last digit.
  if (text_width(text, points) <= width + kRounding) return std::string(text);
  const std::vector<std::size_t> begins = letters_of(text);
  const std::size_t letters = begins.size() - 1;
  if (letters <= kLeastLetters) return std::string(text);
  // With one letter less each time, until it fits.
  for (std::size_t most = letters - 1;; --most) {
    const std::size_t before = (most - 1) / 2, after = most - 1 - before;
    std::string fitted = std::string(text.substr(0, begins[before])) + "\u2026" +
                         std::string(text.substr(begins[letters - after]));
    if (most <= kLeastLetters || text_width(fitted, points) <= width) return fitted;
  }
}

}  // namespace chalcedony
