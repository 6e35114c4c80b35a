#include <catch2/catch.hpp>

#include "figure/plot/axis.h"
#include "figure/plot/box.h"
#include "figure/plot/fitted_text.h"
#include "figure/plot/largest_places.h"
#include "figure/plot/legend.h"
#include "figure/plot/plot.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

TEST_CASE("tics are round, labels have marks between thousands", "[figure]") {
  CHECK(round_tics(0, 4100, 6) == std::vector<double>{0, 1000, 2000, 3000, 4000});
  CHECK(round_tics(-0.4, 0.4, 8).size() == 9);
  CHECK(degree_tics(0, 360) == std::vector<double>{0, 60, 120, 180, 240, 300, 360});
  CHECK(grouped(0) == "0");
  CHECK(grouped(999) == "999");
  CHECK(grouped(1234567) == "1,234,567");
  CHECK(grouped(-12345.5) == "-12,345.5");
  CHECK(tic_list({0, 2000}) == "('0' 0, '2,000' 2000)");
}

namespace {

std::vector<double> sides(const Box& box) { return {box.left, box.top, box.right, box.bottom}; }

}  // namespace

TEST_CASE("a box is cut at its sides, and what is left has its place", "[figure][box]") {
  using Sides = std::vector<double>;
  Box page{0, 0, 1280, 800};
  Box body = page.inside({.left = 26, .top = 80, .right = 26, .bottom = 20});
  CHECK(sides(body) == Sides{26, 80, 1254, 780});
  CHECK(sides(body.cut_left(400, 24)) == Sides{26, 80, 426, 780});
  CHECK(sides(body.cut_right(100, 10)) == Sides{1154, 80, 1254, 780});
  CHECK(sides(body.cut_top(30, 5)) == Sides{450, 80, 1144, 110});
  CHECK(sides(body.cut_bottom(60)) == Sides{450, 720, 1144, 780});
  CHECK(sides(body) == Sides{450, 115, 1144, 720});
  CHECK(body.width() == 694);
  CHECK(body.height() == 605);
  CHECK(body.middle() == 417.5);

  const auto columns = columns_of({10, 0, 110, 50}, 3, 5);
  REQUIRE(columns.size() == 3);
  CHECK(sides(columns[1]) == Sides{45, 0, 75, 50});
  CHECK(sides(columns[2]) == Sides{80, 0, 110, 50});
  const auto rows = rows_of({10, 0, 110, 50}, 2, 10);
  CHECK(sides(rows[0]) == Sides{10, 0, 110, 20});
  CHECK(sides(rows[1]) == Sides{10, 30, 110, 50});
}

TEST_CASE("a text that is too long keeps its beginning and its end", "[figure][box]") {
  CHECK(fitted_text("pane.png", 400, 12) == "pane.png");
  CHECK(fitted_text("", 0, 12) == "");
  const std::string name = "2026-05-14_north-window_panel-a_exposure-3.png";
  const std::string fitted = fitted_text(name, 200, 12);
  CHECK(fitted == "2026-05-14\u2026sure-3.png");
  CHECK(fitted_text(name, 0, 12) == "202\u2026.png");
  CHECK(fitted_text(name, text_width(name, 12), 12) == name);
  CHECK(text_width("\u00e4\u00f6\u00fc", 12) == Approx(text_width("aou", 12)).epsilon(0.2));
  CHECK(text_width("WWW", 12) > 3 * text_width("iii", 12));
  // A plane of Lab on a sheet of four columns.
  const std::string plane = "lab.a (D50), black -125, white 125";
  CHECK(fitted_text(plane, 297, 12) == plane);
  // Letters of several bytes are not parted.
  CHECK(fitted_text("\u00e4\u00f6\u00fc\u00e4\u00f6\u00fc\u00e4\u00f6\u00fc", 0, 12) ==
        "\u00e4\u00f6\u00fc\u2026\u00fc\u00e4\u00f6\u00fc");
}

TEST_CASE("names that are alike but in their middle show where they differ", "[figure][box]") {
  const std::vector<std::string> names{"chapel-north-window-panel-1-before-cleaning-2026.png",
                                       "chapel-north-window-panel-2-before-cleaning-2026.png",
                                       "chapel-north-window-panel-2b-before-cleaning-2026.png",
                                       "chapel-south-window-panel-2-after-cleaning-2026.jpeg",
                                       "short.png"};
  const std::vector<std::string> wide = fitted_names(names, 1000, 12);
  CHECK(wide == names);
  const std::vector<std::string> fitted = fitted_names(names, 200, 12);
  CHECK(fitted[0] == "\u2026ow-panel-1-before-c\u2026");
  CHECK(fitted[1] == "\u2026ow-panel-2-before-c\u2026");
  CHECK(fitted[2] == "\u2026ow-panel-2b-before-\u2026");
  CHECK(fitted[3] == fitted_text(names[3], 200, 12));
  CHECK(fitted[4] == "short.png");
  for (const std::string& one : fitted) CHECK(text_width(one, 12) <= 200);
  // What is one name remains one; letters of several bytes are not parted.
  const std::vector<std::string> twice(2, std::string(40, 'm'));
  const std::vector<std::string> cut = fitted_names(twice, 100, 12);
  CHECK(cut[0] == cut[1]);
  const std::string umlauts = "\u00e4\u00f6\u00fc\u00e4\u00f6\u00fc\u00e4\u00f6\u00fc";
  const auto both = fitted_names({umlauts + "1" + umlauts, umlauts + "2" + umlauts}, 90, 12);
  CHECK(both[0] == "\u2026\u00f6\u00fc1\u00e4\u00f6\u2026");
  CHECK(both[1] == "\u2026\u00f6\u00fc2\u00e4\u00f6\u2026");
}

TEST_CASE("a legend has as many columns as its widest line leaves room for", "[figure][box]") {
  const auto height = [](const std::string& name) {
    return legend_height(std::vector<LegendLine>(6, {name, "#123456", 12.5}), 1228);
  };
  const double row = height("lead");  // all six side by side
  CHECK(height(std::string(14, 'i')) == row);
  CHECK(height(std::string(14, 'W')) == 2 * row);  // as many letters, but wide ones
  std::string umlauts;
  for (int i = 0; i < 8; ++i) umlauts += "\u00fc";  // two bytes each
  CHECK(height(umlauts) == row);
}

TEST_CASE("a picture fits into its box with title and coordinates", "[figure][box]") {
  const TempDir dir;
  Plot plot(FigureFormat::kSvg);
  const Box body = plot.begin(dir / "f.svg", "t");
  Thumbnail wide{200, 100, 1, std::vector<std::uint8_t>(200 * 100 * 3)};
  CHECK(sides(plot.show({100, 100, 500, 700}, "", wide)) ==
        std::vector<double>{100, 100, 500, 300});
  const Box titled = plot.show({100, 100, 500, 700}, "titled", wide);
  CHECK(sides(titled) ==
        std::vector<double>{100, 100 + Plot::kPanelTitle, 500, 300 + Plot::kPanelTitle});
  const Box measured = plot.show(body, "", wide, {.coordinates = true});
  CHECK(measured.left > body.left);
  CHECK(measured.bottom < body.bottom);
  CHECK(measured.width() == Approx(2 * measured.height()));
  CHECK(plot.place(320, 200) == "screen 0.25000,0.75000");
}

TEST_CASE("coordinates of a picture have one step both ways", "[figure]") {
  CHECK(coordinate_step(480, 360) == 100);
  CHECK(coordinate_step(6000, 4000) == 1000);
  CHECK(coordinate_step(90, 360) == 50);  // two or more on the narrow side
  CHECK(coordinate_step(360, 90) == 50);
  CHECK(coordinate_step(1, 1) > 0);
}

TEST_CASE("text cannot leave its quotes", "[figure]") {
  CHECK(literal("plain") == "'plain'");
  CHECK(literal("it's\na `touch x`") == "'it''s\\x0aa `touch x`'");
}

TEST_CASE("titles with quotes and backquotes are drawn, not run", "[figure]") {
  const TempDir dir;
  const auto before = std::filesystem::current_path();
  std::filesystem::current_path(dir.path());
  Plot plot(FigureFormat::kPng);
  plot.begin(dir / "a'`touch x`.png", "a'`touch x`.png", "\"; system(\"touch y\")");
  plot.panel({100, 100, 1200, 700}, "50% @x_y^{z}");
  plot.line("plot sin(x) notitle");
  const auto problem = plot.draw();
  std::filesystem::current_path(before);
  INFO(problem.value_or(""));
  CHECK_FALSE(problem.has_value());
  CHECK(dir.files() == std::set<std::string>{"a'`touch x`.png"});
  CHECK(text_of_file(dir / "a'`touch x`.png").starts_with("\x89PNG"));
}

TEST_CASE("every format is drawn, and a mistake in a script is a sentence", "[figure]") {
  const TempDir dir;
  for (const auto& [format, start] :
       {std::pair{FigureFormat::kSvg, "<?xml"}, std::pair{FigureFormat::kPdf, "%PDF"}}) {
    Plot plot(format);
    plot.begin(dir / "f", "t");
    plot.line("plot sin(x)");
    CHECK_FALSE(plot.draw().has_value());
    CHECK(text_of_file(dir / "f").starts_with(start));
  }
  Plot plot(FigureFormat::kPng);
  plot.begin(dir / "bad.png", "t");
  plot.line("plot nonsense(x)");
  const auto problem = plot.draw();
  REQUIRE(problem.has_value());
  CHECK_THAT(*problem, Catch::Contains("was not drawn"));
  CHECK_FALSE(std::filesystem::exists(dir / "bad.png"));
}

TEST_CASE("tics of counts are whole", "[figure]") {
  CHECK(whole_tics(0, 2.16, 8) == std::vector<double>{0, 2});
  CHECK(whole_tics(2, 9, 10) == round_tics(2, 9, 7));
  CHECK(whole_tics(0, 4100, 6) == round_tics(0, 4100, 6));
}

TEST_CASE("tics of a logarithmic axis are as many as can be read", "[figure]") {
  CHECK(decade_tics(0.5, 30, 10) == std::vector<double>{0.5, 1, 2, 5, 10, 20});
  CHECK(decade_tics(18, 52, 10) == std::vector<double>{20, 30, 40, 50});
  CHECK(decade_tics(1, 20000, 10) == std::vector<double>{1, 10, 100, 1000, 10000});
  CHECK(decade_tics(0.45, 2200, 8) == std::vector<double>{1, 10, 100, 1000});
}

TEST_CASE("what is left out is counted with marks between thousands", "[figure]") {
  CHECK(and_more(3) == "and 3 more");
  CHECK(and_more(12345) == "and 12,345 more");
}

TEST_CASE("a page shows the largest of many in their order", "[figure]") {
  const std::vector<double> values{3, 9, 1, 9, 4, 3};
  CHECK(largest_places(values, 3) == std::vector<std::size_t>{1, 3, 4});
  CHECK(largest_places(values, 4) == std::vector<std::size_t>{0, 1, 3, 4});  // of equals the first
  CHECK(largest_places(values, 9) == std::vector<std::size_t>{0, 1, 2, 3, 4, 5});
  CHECK(largest_places({}, 2).empty());
}
