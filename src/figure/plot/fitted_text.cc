#include "figure/plot/fitted_text.h"

#include <algorithm>
#include <array>
#include <cstddef>
#include <cstdint>
#include <map>
#include <utility>

#include "io/text/letters.h"

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
constexpr const char* kEllipsis = "\u2026";

/// The letters of a text, of one or several bytes each.
using Letters = std::vector<std::string_view>;

Letters letters_of(std::string_view text) {
  Letters letters;
  for (std::size_t begin = 0, end = 0; begin < text.size(); begin = end) {
    do ++end;
    while (end < text.size() && !begins_letter(text[end]));
    letters.push_back(text.substr(begin, end - begin));
  }
  return letters;
}

std::string joined(const Letters& letters, std::size_t begin, std::size_t end) {
  std::string text;
  for (std::size_t i = begin; i < end; ++i) text += letters[i];
  return text;
}

/// Letters [begin, end) of a text and as many of those around them as fit, with ellipses for what
/// is left out at its ends.
std::string fitted_around(const Letters& letters, std::size_t begin, std::size_t end, double width,
                          int points) {
  const auto part = [&](std::size_t from, std::size_t to) {
    return (from > 0 ? kEllipsis : "") + joined(letters, from, to) +
           (to < letters.size() ? kEllipsis : "");
  };
  std::string fitted = part(begin, end);
  for (bool grows = true; grows;) {
    grows = false;
    for (const bool left : {true, false}) {
      if (left ? begin == 0 : end == letters.size()) continue;
      std::string more = part(begin - (left ? 1 : 0), end + (left ? 0 : 1));
      if (text_width(more, points) > width) continue;
      fitted = std::move(more);
      left ? --begin : ++end;
      grows = true;
    }
  }
  return fitted;
}

/// How many letters some texts share at their beginning, and at their end beside these.
struct SharedEnds {
  std::size_t before = 0, behind = 0;
};

SharedEnds shared_ends(const std::vector<Letters>& texts) {
  std::size_t shortest = texts.front().size();
  for (const Letters& text : texts) shortest = std::min(shortest, text.size());
  // Whether all have one letter at a place that is told by their lengths.
  const auto agree = [&](const auto& place_in) {
    return std::all_of(texts.begin(), texts.end(), [&](const Letters& text) {
      return text[place_in(text)] == texts.front()[place_in(texts.front())];
    });
  };
  std::size_t before = 0, behind = 0;
  while (before < shortest && agree([&](const Letters&) { return before; })) ++before;
  while (before + behind < shortest &&
         agree([&](const Letters& text) { return text.size() - 1 - behind; }))
    ++behind;
  return {before, behind};
}

}  // namespace

double text_width(std::string_view text, int points) {
  double sizes = 0;
  for (const char byte : text) {
    const auto code = static_cast<unsigned char>(byte);
    if (code >= ' ' && code <= '~') {
      sizes += kAsciiWidths[code - ' '] / 100.0;
    } else if (begins_letter(byte)) {
      sizes += code < kFirstWide ? kOtherWidth : kWideWidth;
    }
  }
  return kPixelsOfPoint * points * sizes;
}

double widest_text(const std::vector<std::string>& texts, int points) {
  double widest = 0;
  for (const std::string& text : texts) widest = std::max(widest, text_width(text, points));
  return widest;
}

std::string fitted_text(std::string_view text, double width, int points) {
  // A width that was worked out for this very text may have lost its last digit.
  if (text_width(text, points) <= width + kRounding) return std::string(text);
  const Letters letters = letters_of(text);
  if (letters.size() <= kLeastLetters) return std::string(text);
  // With one letter less each time, until it fits.
  for (std::size_t most = letters.size() - 1;; --most) {
    const std::size_t before = (most - 1) / 2, after = most - 1 - before;
    const std::string fitted = joined(letters, 0, before) + kEllipsis +
                               joined(letters, letters.size() - after, letters.size());
    if (most <= kLeastLetters || text_width(fitted, points) <= width) return fitted;
  }
}

std::vector<std::string> fitted_names(const std::vector<std::string>& names, double width,
                                      int points) {
  std::vector<std::string> fitted;
  std::map<std::string, std::vector<std::size_t>> alike;
  for (const std::string& name : names) {
    fitted.push_back(fitted_text(name, width, points));
    if (fitted.back() != name) alike[fitted.back()].push_back(fitted.size() - 1);
  }
  for (const auto& [text, places] : alike) {
    if (places.size() < 2) continue;
    std::vector<Letters> texts;
    for (const std::size_t i : places) texts.push_back(letters_of(names[i]));
    const auto [before, behind] = shared_ends(texts);
    for (std::size_t i = 0; i < places.size(); ++i)
      fitted[places[i]] = fitted_around(texts[i], before, texts[i].size() - behind, width, points);
  }
  return fitted;
}

}  // namespace chalcedony
