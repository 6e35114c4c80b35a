// What became of classes, read from the SVG form of the figure.
#include "figure/changes_figure.h"

#include "tests/support/drawn_figure.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

std::string flows_svg(const ChangesFigure& figure) {
  return drawn(
      [&](Plot& plot, const std::filesystem::path& path) { add_flows_figure(plot, path, figure); });
}

}  // namespace

TEST_CASE("maps are strips with their shares, and changes are bands between them", "[figure]") {
  const ChangesFigure figure{
      "What became of the classes",
      {"spring", "summer", "autumn"},
      {{"lichen", "#808000"}, {"rock", "#d0d0d0"}, {"unclassified", "#000000"}},
      {{30, 70, 0}, {45.5, 42, 12.5}, {99.5, 0.5, 0}},
      {{{0, 0, 30}, {1, 0, 15.5}, {1, 1, 42}, {1, 2, 12.5}},
       {{0, 0, 45.5}, {1, 0, 41.5}, {1, 1, 0.5}, {2, 0, 12.5}}}};
  const std::string svg = flows_svg(figure);
  for (const char* text : {"What became of the classes", "spring", "summer", "autumn", "lichen",
                           "rock", "30.0", "45.5", "12.5", "99.5"})
    CHECK(has_text(svg, text));
  // What only the strip in the middle has is named below, and too little has no number.
  CHECK(text_in(svg, "unclassified").top > text_in(svg, "lichen").bottom);
  CHECK_FALSE(has_text(svg, "0.5"));
  CHECK(text_in(svg, "30.0").left < text_in(svg, "45.5").left);
  CHECK(text_in(svg, "45.5").left < text_in(svg, "99.5").left);
  CHECK(texts_off_page(svg).empty());
  // A band for each flow, in the color of what was.
  std::size_t bands = 0;
  for (std::size_t at = svg.find("fill-opacity"); at != std::string::npos;
       at = svg.find("fill-opacity", at + 1))
    ++bands;
  CHECK(bands >= 8);
}

TEST_CASE("bands too thin to be seen are not drawn", "[figure]") {
  constexpr std::size_t kClasses = 120;
  ChangesFigure figure{"Changes", {"before", "after"}, {}, {}, {{}}};
  const std::vector<double> even(kClasses, 100.0 / kClasses);
  figure.shares = {even, even};
  for (std::size_t a = 0; a < kClasses; ++a) {
    figure.classes.push_back({"class " + std::to_string(a), "#406080"});
    for (std::size_t b = 0; b < kClasses; ++b)
      figure.flows[0].push_back({a, b, 100.0 / kClasses / kClasses});
  }
  CHECK(flows_svg(figure).size() < 600'000);
}

TEST_CASE("eight maps have room for their names", "[figure]") {
  ChangesFigure figure{"Changes", {}, {{"a", "#102030"}, {"none", "#000000"}}, {}, {}};
  for (int map = 0; map < 8; ++map) {
    figure.times.push_back("a survey with quite a long name, " + std::to_string(1900 + map));
    figure.shares.push_back({60, 40});
    if (map > 0) figure.flows.push_back({{0, 0, 50}, {0, 1, 10}, {1, 0, 10}, {1, 1, 30}});
  }
  CHECK(texts_off_page(flows_svg(figure)).empty());
}
