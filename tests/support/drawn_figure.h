// A figure as SVG, to be read.
#ifndef CHALCEDONY_TESTS_SUPPORT_DRAWN_FIGURE_H_
#define CHALCEDONY_TESTS_SUPPORT_DRAWN_FIGURE_H_

#include <catch2/catch.hpp>
#include <string>
#include <vector>

#include "figure/plot/plot.h"
#include "tests/support/svg_texts.h"
#include "tests/support/temp_dir.h"

namespace chalcedony::test {

/// Draws one figure and returns its SVG; every text in it must be at least 11 pixels high, and none
/// lie on another.
template <class Add>
std::string drawn(Add add) {
  const TempDir dir;
  Plot plot(FigureFormat::kSvg);
  add(plot, dir / "figure.svg");
  const auto problem = plot.draw();
  INFO(problem.value_or(""));
  REQUIRE_FALSE(problem.has_value());
  const std::string svg = text_of_file(dir / "figure.svg");
  const std::vector<SvgText> texts = svg_texts(svg);
  CHECK_FALSE(texts.empty());
  for (const SvgText& text : texts) CHECK(text.size >= 11);
  CHECK_THAT(overlapping_texts(texts), Catch::Equals(std::vector<std::string>{}));
  return svg;
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_DRAWN_FIGURE_H_
