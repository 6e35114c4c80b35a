// The colors of spots, read from the SVG form of their figures.
#include "figure/spots_figure.h"

#include "tests/support/drawn_figure.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

SpotSeries series_of(std::size_t spots, std::size_t pictures) {
  SpotSeries series;
  for (std::size_t p = 0; p < pictures; ++p) {
    series.pictures.push_back("day-" + std::to_string(p) + ".png");
    series.steady.emplace_back();
  }
  series.to = series.pictures.front();
  for (std::size_t s = 0; s < spots; ++s) {
    series.spots.push_back("spot " + std::to_string(s));
    auto& seen = series.seen.emplace_back();
    for (std::size_t p = 0; p < pictures; ++p)
      seen.push_back({"#804020", p == 0 ? std::nullopt : std::optional(100.0 + double(s) + 0.1)});
  }
  return series;
}

std::string series_svg(const SpotSeries& series) {
  return drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_spot_series_figure(plot, path, series);
  });
}

}  // namespace

TEST_CASE("spots stand in rows and pictures in columns", "[figure][spots]") {
  SpotSeries series = series_of(2, 3);
  series.seen[0][1] = {"#ffffff", 3.26};
  series.seen[1][2] = {"", {}};  // not in that picture
  series.steady[1] = 0.44;
  const std::string svg = series_svg(series);
  for (const char* text : {"Spots in 3 pictures", "numbers are delta E 2000 to day-0.png",
                           "day-1.png", "spot 0", "3.3", "101.1", "steady spots, up to", "0.4"})
    CHECK(has_text(svg, text));
  CHECK(text_in(svg, "3.3").top == Approx(text_in(svg, "spot 0").top).margin(2));
  CHECK(text_in(svg, "101.1").top == Approx(text_in(svg, "spot 1").top).margin(2));
  CHECK(text_in(svg, "3.3").left > text_in(svg, "day-1.png").left);
  CHECK(text_in(svg, "0.4").top > text_in(svg, "101.1").top);
  CHECK_FALSE(has_text(series_svg(series_of(2, 3)), "steady spots, up to"));
}

TEST_CASE("of many spots a page shows those that went farthest", "[figure][spots]") {
  const std::string svg = series_svg(series_of(30, 12));
  CHECK(has_text(svg,
                 "numbers are delta E 2000 to day-0.png; the 18 of 30 spots that went farthest"));
  CHECK_FALSE(has_text(svg, "spot 11"));
  CHECK(has_text(svg, "spot 12"));
  CHECK(has_text(svg, "129.1"));
  CHECK(text_in(svg, "spot 29").bottom < 800);
}

TEST_CASE("through many pictures a spot is a line, named at its end", "[figure][spots]") {
  SpotSeries series = series_of(3, 40);
  for (std::size_t p = 1; p < 40; ++p) {
    series.seen[0][p].delta_e = 0.5 * static_cast<double>(p);
    series.seen[1][p].delta_e = 2;
    series.seen[2][p].delta_e = 2.01;
  }
  series.seen[1][20] = {"", {}};
  series.steady[5] = 1.5;
  series.steady[6] = 1.25;
  const std::string svg = series_svg(series);
  for (const char* text : {"Spots in 40 pictures",
                           "how far spots are from day-0.png; gray: as far as steady spots went",
                           "delta E 2000", "picture, in the order of the inputs", "20"})
    CHECK(has_text(svg, text));
  CHECK_FALSE(has_text(svg, "day-1.png"));
  // The name of the one that went farthest stands highest; names of lines that meet stand apart.
  CHECK(text_in(svg, "spot 0").bottom < text_in(svg, "spot 1").top);
  const auto one = text_in(svg, "spot 1"), two = text_in(svg, "spot 2");
  CHECK((one.bottom <= two.top + 1 || two.bottom <= one.top + 1));
  CHECK(text_in(svg, "spot 0").left > text_in(svg, "20").right);
}

TEST_CASE("a spot is named inside where it has room, else beside it", "[figure][spots]") {
  const auto rectangle = [](const char* name, double x, double y, double w, double h) {
    SampleSet set;
    set.shapes.push_back({set.class_named(name), {rectangle_ring(x, y, w, h)}, {}, 0});
    return set;
  };
  const Thumbnail picture{100, 100, 1, std::vector<std::uint8_t>(30000, 128)};
  const auto placed = [&](const char* name, const SampleSet& places) {
    const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
      add_spots_figure(plot, path, "p.png", "", places,
                       {{"one", "#aa2030", {40, 50, 30}, 2, {}, {}}}, picture);
    });
    return text_in(svg, name);
  };
  // The picture is drawn at a little less than 7 pixels of the page for one of its own.
  const auto inside = placed("wide", rectangle("wide", 10, 50, 80, 40));
  const double middle = (inside.top + inside.bottom) / 2;
  CHECK(middle == Approx(80 + 6.7 * 70).margin(25));
  const auto above = placed("low", rectangle("low", 10, 50, 3, 3));
  CHECK(above.bottom < 80 + 6.7 * 50);
  CHECK(above.bottom > 80 + 6.7 * 40);
  const auto below = placed("high", rectangle("high", 10, 0, 3, 3));
  CHECK(below.top > 80 + 6.5 * 3);
  // A frame around all of the picture leaves room nowhere but in the picture.
  SampleSet frame = rectangle("frame", 0, 0, 100, 100);
  frame.shapes[0].rings.push_back(rectangle_ring(1, 1, 98, 98));
  const auto at_top = placed("frame", frame);
  CHECK(at_top.top > 80);
  CHECK(at_top.bottom < 80 + 6.7 * 8);
}

TEST_CASE("colors of spots stand beside those they are held against", "[figure][spots]") {
  const Thumbnail picture{100, 100, 1, std::vector<std::uint8_t>(30000, 128)};
  SampleSet places;
  for (const char* name : {"red", "new"})
    places.shapes.push_back({places.class_named(name), {rectangle_ring(10, 10, 5, 5)}, {}, 0});
  const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_spots_figure(plot, path, "p.png", "as they are", places,
                     {{"red", "#aa2030", {40.26, -0.02, 30}, 2.04, "#bb3344", 3.26},
                      {"new", "#102030", {10, 0, -9}, 1, "", {}}},
                     picture);
  });
  for (const char* text : {"Spots on p.png", "as they are", "delta E", "40.3", "0.0", "2.0", "3.3"})
    CHECK(has_text(svg, text));
  CHECK_FALSE(has_text(svg, "-0.0"));
  CHECK_THAT(svg, Catch::Contains("170,  32,  48") && Catch::Contains("187,  51,  68"));
}

TEST_CASE("rows of spots near each other are all named on one side", "[figure][spots]") {
  const Thumbnail picture{120, 80, 1, std::vector<std::uint8_t>(28800, 128)};
  const auto svg_of = [&](double first_row) {
    SampleSet places;
    std::vector<ShownSpot> spots;
    for (const char* name : {"A1", "B1", "C1"}) {
      const double y = first_row + 8.0 * static_cast<double>(spots.size());
      places.shapes.push_back({places.class_named(name), {rectangle_ring(30, y, 4, 4)}, {}, 0});
      spots.push_back({"the spot", "#aa2030", {40, 50, 30}, 2, {}, {}});
    }
    return drawn([&](Plot& plot, const std::filesystem::path& path) {
      add_spots_figure(plot, path, "p.png", "", places, spots, picture);
    });
  };
  // A pixel of the picture is some 5.5 of the page, and the first row has no room above it.
  const std::string below = svg_of(0);
  const double row = text_in(below, "B1").top - text_in(below, "A1").top;
  CHECK(row == Approx(8 * 5.6).margin(3));
  CHECK(text_in(below, "C1").top - text_in(below, "B1").top == Approx(row).margin(1));
  CHECK(text_in(below, "A1").top > 80 + 4 * 5.5);
  const std::string above = svg_of(4);
  CHECK(text_in(above, "A1").bottom < 80 + 4 * 5.9);
  CHECK(text_in(above, "C1").top - text_in(above, "B1").top == Approx(row).margin(1));
}
