// Shares of several pictures, read from the SVG form of their figure.
#include "figure/class_bars_figure.h"

#include "tests/support/drawn_figure.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

std::string bars_svg(const ClassBars& figure) {
  return drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_class_bars_figure(plot, path, figure);
  });
}

}  // namespace

TEST_CASE("each picture has a bar of its shares, in its class's color", "[figure]") {
  const std::string svg = bars_svg({"Shares of classes in 2 pictures",
                                    {"north.png", "south.png"},
                                    {{"lichen", "#808000", 40.0}, {"stone", "#f0f0f0", 60.0}},
                                    {{25.4, 74.6}, {98.5, 1.5}},
                                    ClassBars::Beside{"far, %", {0.0, 61.2}}});
  for (const char* text : {"Shares of classes in 2 pictures", "north.png", "south.png",
                           "percent of the counted pixels", "lichen   40.0 %", "stone   60.0 %",
                           "25.4", "74.6", "98.5", "far, %", "0.0", "61.2"})
    CHECK(has_text(svg, text));
  CHECK_FALSE(has_text(svg, "1.5"));  // its bar is too narrow for it
  // In the middle of its bar, and in the row of its picture.
  CHECK(text_in(svg, "74.6").left > text_in(svg, "25.4").right);
  CHECK(text_in(svg, "25.4").top == Approx(text_in(svg, "north.png").top).margin(2));
  CHECK(text_in(svg, "98.5").top == Approx(text_in(svg, "south.png").top).margin(2));
  CHECK_THAT(svg, Catch::Contains("128, 128,   0") && Catch::Contains("240, 240, 240"));
}

TEST_CASE("one share alone has an axis of its own length", "[figure]") {
  const auto svg_of = [](double most) {
    return bars_svg({"What is selected in 2 pictures",
                     {"a.png", "b.png"},
                     {{"selected", "#5b7f95", most}},
                     {{most / 2}, {most}}});
  };
  const std::string some = svg_of(23.6), few = svg_of(0.37), none = svg_of(0), all = svg_of(100);
  CHECK(has_text(some, "30"));
  CHECK_FALSE(has_text(some, "40"));
  CHECK(has_text(some, "11.8"));
  CHECK(has_text(few, "0.4"));
  CHECK_FALSE(has_text(few, "0.6"));
  CHECK(has_text(few, "0.370"));
  CHECK(has_text(none, "0.01"));
  CHECK(has_text(all, "100.0"));
}

TEST_CASE("numbers of regions have an axis of their own length", "[figure]") {
  ClassBars figure{"Regions in 2 pictures",
                   {"plate-1.png", "plate-2.png"},
                   {{.name = "yeast", .color = "#808000", .count = "1,270"},
                    {.name = "mold", .color = "#f0f0f0", .count = "31"}},
                   {{1200, 0}, {70, 31}},
                   {},
                   BarsOf::kRegions,
                   "regions",
                   "numbers below are those of all pictures together"};
  const std::string two = bars_svg(figure);
  for (const char* text : {"regions", "yeast   1,270", "mold   31", "1,200", "70", "1,400",
                           "numbers below are those of all pictures together"})
    CHECK(has_text(two, text));
  CHECK_FALSE(has_text(two, "0.0"));
  figure.classes.pop_back();
  figure.values = {{3}, {0}};
  const std::string one = bars_svg(figure);
  CHECK(has_text(one, "3"));
  CHECK_FALSE(has_text(one, "4"));
  figure.values = {{0}, {0}};
  CHECK(has_text(bars_svg(figure), "1"));
}

TEST_CASE("many pictures have low bars, very many the mean of some", "[figure]") {
  const auto svg_of = [](std::size_t pictures) {
    ClassBars figure{"Shares", {}, {{"a", "#102030", 50.0}, {"b", "#d0d0d0", 50.0}}, {}};
    for (std::size_t i = 0; i < pictures; ++i) {
      figure.pictures.push_back("field-" + std::to_string(i) + ".png");
      figure.values.push_back({i % 2 ? 20.0 : 60.0, i % 2 ? 80.0 : 40.0});
    }
    return bars_svg(figure);
  };
  const std::string some = svg_of(60), many = svg_of(600), most = svg_of(1201);
  CHECK(has_text(some, "field-59.png"));
  CHECK(has_text(some, "60.0"));
  CHECK_FALSE(has_text(many, "60.0"));
  CHECK(has_text(many, "field-590.png"));
  CHECK_FALSE(has_text(many, "field-1.png"));
  CHECK_THAT(many, !Catch::Contains("is the mean of"));
  CHECK_THAT(most, Catch::Contains("each bar is the mean of 3 pictures"));
  CHECK(has_text(most, "field-0.png"));
}
