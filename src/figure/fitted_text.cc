#include "figure/fitted_text.h"

#include <algorithm>
#include <cstddef>
#include <vector>

namespace chalcedony {
namespace {

constexpr double kLetterOfPoint = 0.78;  // the width of a letter in pixels, for each point
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
  return kLetterOfPoint * points * static_cast<double>(letters_of(text).size() - 1);
}

std::string fitted_text(std::string_view text, double width, int points) {
  // A width that was worked out for this very text may have lost its last digit.
  if (text_width(text, points) <= width + kRounding) return std::string(text);
  const std::vector<std::size_t> begins = letters_of(text);
  const std::size_t letters = begins.size() - 1;
  const auto room = static_cast<std::size_t>(std::max(0.0, width / (kLetterOfPoint * points)));
  const std::size_t most = std::max(room, kLeastLetters);
  if (letters <= most) return std::string(text);
  const std::size_t before = (most - 1) / 2, after = most - 1 - before;
  return std::string(text.substr(0, begins[before])) + "\u2026" +
         std::string(text.substr(begins[letters - after]));
}

}  // namespace chalcedony
