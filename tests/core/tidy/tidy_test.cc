#include <catch2/catch.hpp>
#include <cmath>
#include <map>

#include "core/error.h"
#include "core/region/region_map.h"
#include "core/tidy/apply_step.h"
#include "core/tidy/majority.h"
#include "core/tidy/morphology.h"
#include "core/tidy/region_steps.h"
#include "core/tidy/tidy_steps.h"
#include "tests/support/drawn_grid.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

bool in_element(const Element& e, int dx, int dy) {
  const double r = e.radius;
  switch (e.shape) {
    case ElementShape::kDisk:
      return dx * dx + dy * dy <= r * r;
    case ElementShape::kBox:
      return std::abs(dx) <= r && std::abs(dy) <= r;
    case ElementShape::kDiamond:
      return std::abs(dx) + std::abs(dy) <= r;
    case ElementShape::kLine:
      if (e.angle == 0) return dy == 0 && std::abs(dx) <= r;
      if (e.angle == 90) return dx == 0 && std::abs(dy) <= r;
      return dy == (e.angle == 45 ? -dx : dx) && std::abs(dx) <= r;
  }
  return false;
}

/// Dilation with a window for every pixel.
Flags plain_reached(const Flags& on, int width, int height, const Element& e) {
  Flags out(on.size());
  const int r = static_cast<int>(e.radius);
  for (int y = 0; y < height; ++y)
    for (int x = 0; x < width; ++x)
      for (int dy = -r; dy <= r; ++dy)
        for (int dx = -r; dx <= r; ++dx) {
          const int px = x + dx, py = y + dy;
          if (px < 0 || py < 0 || px >= width || py >= height || !in_element(e, dx, dy)) continue;
          if (on[static_cast<std::size_t>(py * width + px)])
            out[static_cast<std::size_t>(y * width + x)] = 1;
        }
  return out;
}

std::vector<Element> some_elements() {
  std::vector<Element> elements;
  for (const double radius : {0.0, 1.0, 2.0, 5.0, 40.0})
    for (const ElementShape shape :
         {ElementShape::kDisk, ElementShape::kBox, ElementShape::kDiamond})
      elements.push_back({shape, radius, 0});
  for (const double radius : {1.5, 2.3, 4.9}) elements.push_back({ElementShape::kDisk, radius, 0});
  for (const int angle : {0, 45, 90, 135}) elements.push_back({ElementShape::kLine, 3, angle});
  return elements;
}

LabelGrid inverted(LabelGrid grid) {
  for (auto& label : grid.labels) label ^= 1;
  return grid;
}

bool is_within(const LabelGrid& small, const LabelGrid& large) {
  for (std::size_t i = 0; i < small.labels.size(); ++i)
    if (small.labels[i] && small.labels[i] != large.labels[i]) return false;
  return true;
}

}  // namespace

TEST_CASE("dilation is what a window for every pixel gives", "[core][tidy]") {
  for (unsigned seed = 1; seed <= 4; ++seed) {
    const LabelGrid grid = random_grid(33, 21, seed, 1, seed % 2 ? 0.97 : 0.6);
    const Flags on(grid.labels.begin(), grid.labels.end());
    for (const Element& e : some_elements()) {
      INFO("shape " << static_cast<int>(e.shape) << " radius " << e.radius << " angle " << e.angle);
      CHECK(reached(on, 33, 21, e) == plain_reached(on, 33, 21, e));
    }
  }
  const Flags none(33 * 21);
  CHECK(reached(none, 33, 21, {ElementShape::kDisk, 50, 0}) == none);
  CHECK(reached({1}, 1, 1, {ElementShape::kLine, 2, 45}) == Flags{1});
}

TEST_CASE("erosion and dilation are dual, opening and closing settle at once", "[core][tidy]") {
  for (unsigned seed = 1; seed <= 5; ++seed)
    for (const Element& e : some_elements()) {
      const LabelGrid grid = random_grid(30, 25, seed, 1, 0.2 + 0.15 * seed);
      LabelGrid eroded = grid, other = inverted(grid);
      erode(eroded, e);
      dilate(other, e);
      CHECK(eroded.labels == inverted(other).labels);
      LabelGrid opened = grid, closed = grid;
      open(opened, e);
      close(closed, e);
      CHECK(is_within(opened, grid));
      CHECK(is_within(grid, closed));
      LabelGrid again = opened;
      open(again, e);
      CHECK(again.labels == opened.labels);
      again = closed;
      close(again, e);
      CHECK(again.labels == closed.labels);
    }
}

TEST_CASE("each class is opened by itself and grows only into free pixels", "[core][tidy]") {
  LabelGrid grid = drawn({"1111222",  //
                          "1111222",  //
                          "1112222",  //
                          "1111222"});
  open(grid, {ElementShape::kBox, 1, 0});
  // The dent of class 2 is thinner than the box; nothing else is.
  CHECK(drawing_of(grid) == std::vector<std::string>{"1111222", "1111222", "111.222", "111.222"});
  LabelGrid free = drawn({"1...2"});
  dilate(free, {ElementShape::kBox, 2, 0});
  CHECK(drawing_of(free) == std::vector<std::string>{"11122"});
}

TEST_CASE("holes take the class with the longest border, those at the edge stay", "[core][tidy]") {
  LabelGrid grid = drawn({"111112",  //
                          "1..112",  //
                          "1.1122",  //
                          "1112.2",  //
                          ".11222"});
  fill_holes(grid, ~std::uint64_t{0});
  CHECK(drawing_of(grid) ==
        std::vector<std::string>{"111112", "111112", "111122", "111222", ".11222"});
  LabelGrid even = drawn({"112", "1.2", "122"});
  fill_holes(even, 1);
  CHECK(drawing_of(even) == std::vector<std::string>{"112", "112", "122"});
  LabelGrid sized = drawn({"11111", "1.1.1", "111.1", "11111"});
  fill_holes(sized, 1);
  CHECK(drawing_of(sized) == std::vector<std::string>{"11111", "111.1", "111.1", "11111"});
  // Holes touch at sides: two that meet at a corner are two.
  LabelGrid corner = drawn({"1111", "1.11", "11.1", "1111"});
  fill_holes(corner, 1);
  CHECK(drawing_of(corner) == std::vector<std::string>{"1111", "1111", "1111", "1111"});
}

TEST_CASE("filling never takes, dropping never gives", "[core][tidy]") {
  for (unsigned seed = 1; seed <= 10; ++seed) {
    const LabelGrid grid = random_grid(40, 30, seed, 3, 0.4);
    LabelGrid filled = grid, dropped = grid, kept = grid, inner = grid;
    fill_holes(filled, 5);
    drop_small(dropped, 4);
    keep_largest(kept, 2);
    clear_edge(inner);
    CHECK(is_within(grid, filled));
    for (const LabelGrid* fewer : {&dropped, &kept, &inner}) CHECK(is_within(*fewer, grid));
    for (const GridRegion& region : find_regions(dropped, Connectivity::kEight).regions)
      CHECK(region.pixels >= 4);
    std::map<int, int> of_class;
    for (const GridRegion& region : find_regions(kept, Connectivity::kEight).regions)
      CHECK(++of_class[region.label] <= 2);
    for (const GridRegion& region : find_regions(inner, Connectivity::kEight).regions)
      CHECK_FALSE(region.at_edge);
  }
}

TEST_CASE("majority is what counting every box gives", "[core][tidy]") {
  for (const std::uint32_t radius : {0u, 1u, 2u, 7u, 60u}) {
    const LabelGrid grid = random_grid(50, 150, radius + 1, 4, 0.2);
    LabelGrid smooth = grid;
    majority(smooth, radius);
    const int r = static_cast<int>(radius);
    for (int y = 0; y < 150; ++y)
      for (int x = 0; x < 50; ++x) {
        std::array<int, 5> counts{};
        for (int py = std::max(0, y - r); py <= std::min(149, y + r); ++py)
          for (int px = std::max(0, x - r); px <= std::min(49, x + r); ++px)
            ++counts[grid.row(static_cast<std::size_t>(py))[px]];
        const int most = *std::max_element(counts.begin(), counts.end());
        const Label own = grid.row(static_cast<std::size_t>(y))[x];
        const int expected =
            counts[own] == most
                ? own
                : static_cast<int>(std::find(counts.begin(), counts.end(), most) - counts.begin());
        if (smooth.row(static_cast<std::size_t>(y))[x] != expected)
          FAIL("at " << x << "," << y << " radius " << radius);
      }
    SUCCEED();
  }
}

TEST_CASE("steps are read as they are written, and mistakes are named", "[core][tidy]") {
  const auto steps = parse_tidy_steps(
      "fill ; open 2.5;close 3 line 135; drop 40 ;majority 2;"
      "keep 1; clear-edge; invert; dilate 1 diamond;");
  REQUIRE(steps.size() == 9);
  CHECK(steps[1].element.radius == 2.5);
  CHECK(steps[1].element.shape == ElementShape::kDisk);
  CHECK(steps[2].element.angle == 135);
  CHECK(steps[2].text == "close 3 line 135");
  CHECK(steps[3].count == 40);
  const std::vector<std::pair<const char*, const char*>> wrong{
      {"", "there is no step"},
      {" ; ", "there is no step"},
      {"opn 2", "in the step 'opn 2', 'opn' is no step"},
      {"drop:5", "'drop:5' is no step"},
      {"open", "the step 'open' lacks a radius"},
      {"open two", "'two' is not a radius in pixels, at most 10000"},
      {"open 2 dsk", "'dsk' is no element"},
      {"open 2.5 box", "the radius must be whole"},
      {"open 2 line 30", "'30' is no angle of a line"},
      {"drop", "the step 'drop' lacks how many pixels"},
      {"drop -1", "'-1' is not how many"},
      {"keep 1.5", "'1.5' is not how many"},
      {"fill 3 4", "'4' is one word too many"}};
  for (const auto& [text, problem] : wrong)
    CHECK_THROWS_WITH(parse_tidy_steps(text), Catch::Contains(problem));
  try {
    parse_tidy_steps("opn 2");
  } catch (const UsageError& error) {
    CHECK_THAT(error.remedy(), Catch::Contains("open"));
  }
}

TEST_CASE("a step that was read does what its name says", "[core][tidy]") {
  const LabelGrid grid = random_grid(33, 21, 7, 1, 0.7);
  const auto after = [&](const char* text) {
    LabelGrid changed = grid;
    for (const TidyStep& step : parse_tidy_steps(text)) apply_step(changed, step);
    return changed.labels;
  };
  const Element disk{ElementShape::kDisk, 1, 0};
  const auto by = [&](const auto& work) {
    LabelGrid changed = grid;
    work(changed);
    return changed.labels;
  };
  CHECK(after("dilate 1") == by([&](LabelGrid& g) { dilate(g, disk); }));
  CHECK(after("erode 1") == by([&](LabelGrid& g) { erode(g, disk); }));
  CHECK(after("open 1") == by([&](LabelGrid& g) { open(g, disk); }));
  CHECK(after("close 1") == by([&](LabelGrid& g) { close(g, disk); }));
  CHECK(after("fill 3") == by([&](LabelGrid& g) { fill_holes(g, 3); }));
  CHECK(after("drop 3") == by([&](LabelGrid& g) { drop_small(g, 3); }));
  CHECK(after("keep 1") == by([&](LabelGrid& g) { keep_largest(g, 1); }));
  CHECK(after("majority 1") == by([&](LabelGrid& g) { majority(g, 1); }));
  CHECK(after("clear-edge") == by([&](LabelGrid& g) { clear_edge(g); }));
  CHECK(after("invert") == inverted(grid).labels);
  CHECK(after("invert; invert") == grid.labels);
}

TEST_CASE("a step for some classes leaves the others as they are", "[core][tidy]") {
  const LabelGrid grid = random_grid(41, 30, 11, 4, 0.5);
  const std::vector<Label> chosen{2, 4};
  const auto is_chosen = [](Label label) { return label == 2 || label == 4; };
  const auto after = [&](const char* text, const std::vector<Label>& classes) {
    LabelGrid changed = grid;
    apply_step(changed, parse_tidy_steps(text)[0], classes);
    return changed;
  };
  const auto all_after = [&](const char* text) {
    LabelGrid changed = grid;
    apply_step(changed, parse_tidy_steps(text)[0]);
    return changed;
  };
  // What takes pixels away: from the chosen ones, as from all.
  for (const char* text : {"erode 1", "open 1", "drop 3", "keep 2", "clear-edge"}) {
    const LabelGrid all = all_after(text), some = after(text, chosen);
    INFO(text);
    CHECK(all.labels != grid.labels);
    for (std::size_t i = 0; i < grid.labels.size(); ++i)
      CHECK(some.labels[i] == (is_chosen(grid.labels[i]) ? all.labels[i] : grid.labels[i]));
    CHECK(after(text, {1, 2, 3, 4}).labels == all.labels);
  }
  // What grows: into pixels without a class, where another class would have been first too.
  const LabelGrid grown = after("dilate 1", chosen);
  for (int y = 0; y < 30; ++y)
    for (int x = 0; x < 41; ++x) {
      Label expected = grid.row(static_cast<std::size_t>(y))[x];
      for (const Label label : {4, 2})
        for (const auto& [dx, dy] : {std::pair{0, -1}, {0, 1}, {-1, 0}, {1, 0}}) {
          const int px = x + dx, py = y + dy;
          if (grid.row(static_cast<std::size_t>(y))[x] == 0 && px >= 0 && py >= 0 && px < 41 &&
              py < 30 && grid.row(static_cast<std::size_t>(py))[px] == label)
            expected = label;
        }
      CHECK(grown.row(static_cast<std::size_t>(y))[x] == expected);
    }
  CHECK(after("close 2", {1, 2, 3, 4}).labels == all_after("close 2").labels);
}

TEST_CASE("holes are those of all classes, filled with the chosen ones", "[core][tidy]") {
  // A pane of 2 in lead 1, each with a hole.
  const LabelGrid grid = drawn({"1111111", "1.12221", "1112.21", "1112221", "1111111"});
  const auto filled = [&](const std::vector<Label>& classes) {
    LabelGrid changed = grid;
    apply_step(changed, parse_tidy_steps("fill")[0], classes);
    return drawing_of(changed);
  };
  CHECK(filled({1}) ==
        std::vector<std::string>{"1111111", "1112221", "1112.21", "1112221", "1111111"});
  CHECK(filled({2}) ==
        std::vector<std::string>{"1111111", "1.12221", "1112221", "1112221", "1111111"});
}

TEST_CASE("the classes of a step are read, and mistakes are named", "[core][tidy]") {
  const auto steps = parse_tidy_steps("drop 40 of ruby, dark  lead; fill of clear; open 2 box");
  REQUIRE(steps.size() == 3);
  CHECK(steps[0].count == 40);
  CHECK(steps[0].classes == std::vector<std::string>{"ruby", "dark lead"});
  CHECK(steps[0].text == "drop 40 of ruby, dark lead");
  CHECK(steps[1].classes == std::vector<std::string>{"clear"});
  CHECK(steps[2].classes.empty());
  CHECK_THROWS_WITH(parse_tidy_steps("drop 40 of"),
                    Catch::Contains("in the step 'drop 40 of', a class is missing behind 'of'"));
  CHECK_THROWS_WITH(parse_tidy_steps("drop 40 of ruby,"),
                    Catch::Contains("a class is missing behind 'of'"));
  CHECK_THROWS_WITH(parse_tidy_steps("majority 2 of ruby"),
                    Catch::Contains("'majority' is done to all classes at once"));
  CHECK_THROWS_WITH(parse_tidy_steps("open of ruby"), Catch::Contains("lacks a radius in pixels"));
}
