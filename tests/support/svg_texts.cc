#include "tests/support/svg_texts.h"

#include <algorithm>
#include <regex>
#include <stdexcept>

namespace chalcedony::test {
namespace {

// The letters of DejaVu Sans in their size: a little less than they have.
constexpr double kLetter = 0.55, kLetterHeight = 0.72;
constexpr double kTouch = 2;  // pixels that two may share

std::string without_tags(const std::string& text) {
  return std::regex_replace(text, std::regex("<[^>]*>"), "");
}

/// A text at the right end of its line, at the left, or about its middle.
SvgText placed(const std::string& text, double x, double y, bool upright, double size,
               const std::string& anchor) {
  // Letters may have several bytes.
  const auto letters = std::count_if(text.begin(), text.end(), [](char byte) {
    return (static_cast<unsigned char>(byte) & 0xc0) != 0x80;
  });
  const double wide = static_cast<double>(letters) * kLetter * size;
  const double high = kLetterHeight * size;
  const double before = anchor == "start" ? 0 : anchor == "end" ? wide : wide / 2;
  // Turned a quarter against the clock, what is before the anchor lies below it.
  return upright ? SvgText{text, size, x - high, x, y - wide + before, y + before}
                 : SvgText{text, size, x - before, x - before + wide, y - high, y};
}

}  // namespace

std::vector<SvgText> svg_texts(const std::string& svg) {
  static const std::regex one(
      R"re(<g transform="translate\(([-0-9.]+),([-0-9.]+)\)( rotate\([^)]*\))?"[^>]*)re"
      R"re(font-size="([0-9.]+)"\s+text-anchor="(\w+)">\s*<text[^>]*>(.*)</text>)re");
  std::vector<SvgText> texts;
  for (std::sregex_iterator at(svg.begin(), svg.end(), one), end; at != end; ++at) {
    const std::smatch& found = *at;
    const std::string text = without_tags(found[6]);
    if (text.find_first_not_of(' ') == std::string::npos) continue;
    texts.push_back(placed(text, std::stod(found[1]), std::stod(found[2]), found[3].matched,
                           std::stod(found[4]), found[5]));
  }
  return texts;
}

bool has_text(const std::string& svg, const std::string& text) {
  const std::vector<SvgText> texts = svg_texts(svg);
  return std::any_of(texts.begin(), texts.end(),
                     [&](const SvgText& one) { return one.text == text; });
}

SvgText text_in(const std::string& svg, const std::string& text) {
  for (const SvgText& one : svg_texts(svg))
    if (one.text == text) return one;
  throw std::out_of_range("no text " + text);
}

std::vector<std::string> overlapping_texts(const std::vector<SvgText>& texts) {
  std::vector<std::string> pairs;
  for (std::size_t i = 0; i < texts.size(); ++i)
    for (std::size_t j = 0; j < i; ++j) {
      const SvgText &a = texts[i], &b = texts[j];
      const double across = std::min(a.right, b.right) - std::max(a.left, b.left);
      const double down = std::min(a.bottom, b.bottom) - std::max(a.top, b.top);
      if (across > kTouch && down > kTouch) pairs.push_back(b.text + " | " + a.text);
    }
  return pairs;
}

std::vector<std::string> texts_off_page(const std::string& svg) {
  std::smatch page;
  if (!std::regex_search(svg, page, std::regex(R"re(viewBox="0 0 ([0-9]+) ([0-9]+)")re")))
    return {"the page says no size"};
  const double width = std::stod(page[1]), height = std::stod(page[2]);
  std::vector<std::string> off;
  for (const SvgText& text : svg_texts(svg))
    if (text.left < -kTouch || text.right > width + kTouch || text.top < -kTouch ||
        text.bottom > height + kTouch)
      off.push_back(text.text);
  return off;
}

}  // namespace chalcedony::test
