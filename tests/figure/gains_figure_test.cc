// How classes went in several places, read from the SVG form of the figure.
#include "figure/gains_figure.h"

#include "tests/support/drawn_figure.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

std::string gains_svg(const GainsFigure& figure) {
  return drawn(
      [&](Plot& plot, const std::filesystem::path& path) { add_gains_figure(plot, path, figure); });
}

}  // namespace

TEST_CASE("each step has a panel with a row for each class", "[figure]") {
  const GainsFigure figure{
      "How the classes went",
      {{"moss", "#40a020"}, {"rock", "#d0d0d0"}},
      {{"from spring to summer", {{{2, 4, 3}, 3, Interval{1.5, 4.5}}, {{-2, -4, -3}, -3, {}}}},
       {"from summer to autumn", {{{0, 0, 0}, 0, {}}, {{1, 0, 0}, 0.4, Interval{-1, 1.8}}}}}};
  const std::string svg = gains_svg(figure);
  for (const char* text :
       {"How the classes went", "from spring to summer", "from summer to autumn", "moss", "rock"})
    CHECK(has_text(svg, text));
  CHECK(text_in(svg, "from spring to summer").bottom < text_in(svg, "from summer to autumn").top);
  CHECK(text_in(svg, "moss").bottom < text_in(svg, "rock").top);
  CHECK(texts_off_page(svg).empty());
}

TEST_CASE("of very many places the figure shows some and says of how many", "[figure]") {
  GainsFigure figure{"Gains", {{"a", "#102030"}}, {{"from 1 to 2", {{{}, 1, Interval{0, 2}}}}}};
  for (int place = 0; place < 5000; ++place)
    figure.steps[0].of[0].in_places.push_back(place % 40 * 0.1 - 1);
  const std::string svg = gains_svg(figure);
  CHECK_THAT(svg, Catch::Contains("dots of the first 400 of 5000"));
  CHECK(svg.size() < 200'000);
}

TEST_CASE("the figure of gains stands nothing that changes, and many classes and steps",
          "[figure]") {
  CHECK(texts_off_page(gains_svg({"Nothing", {{"a", "#102030"}}, {{"step", {{{0, 0}, 0, {}}}}}}))
            .empty());
  GainsFigure many{"Many", {}, {}};
  for (int c = 0; c < 70; ++c) many.classes.push_back({"class " + std::to_string(c), "#406080"});
  for (int s = 0; s < 3; ++s)
    many.steps.push_back({"step " + std::to_string(s),
                          std::vector<GainsFigure::Gains>(70, {{1, -1}, 0, Interval{-2, 2}})});
  CHECK(texts_off_page(gains_svg(many)).empty());
}
