// The texts of a figure, read from its SVG form.
#ifndef CHALCEDONY_TESTS_SUPPORT_SVG_TEXTS_H_
#define CHALCEDONY_TESTS_SUPPORT_SVG_TEXTS_H_

#include <string>
#include <vector>

namespace chalcedony::test {

/// Where a text stands, in pixels of the page; how wide it is follows from its letters' number.
struct SvgText {
  std::string text;
  double size = 0;  // of its font, in pixels
  double left = 0, right = 0, top = 0, bottom = 0;
};

/// All texts but empty ones.
std::vector<SvgText> svg_texts(const std::string& svg);

/// Whether a text stands there, whole, and the first place where it does.
bool has_text(const std::string& svg, const std::string& text);
/// Errors    std::out_of_range when it does not
SvgText text_in(const std::string& svg, const std::string& text);

/// Pairs of texts that lie on each other, as "first | second".
std::vector<std::string> overlapping_texts(const std::vector<SvgText>& texts);

/// Texts of which a part does not lie on the page.
std::vector<std::string> texts_off_page(const std::string& svg);

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_SVG_TEXTS_H_
