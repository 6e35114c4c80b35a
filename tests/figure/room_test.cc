// Names that are long, and pictures that are very wide or small: figures stay within their pages.
#include <catch2/catch.hpp>
#include <string>
#include <vector>

#include "core/learn/class_statistics.h"
#include "figure/accuracy_figure.h"
#include "figure/grid_figure.h"
#include "figure/plot/axis.h"
#include "figure/plot/heat_scale.h"
#include "figure/region_figure.h"
#include "figure/sample_figure.h"
#include "figure/scatter_figure.h"
#include "figure/sheet_figure.h"
#include "tests/support/drawn_figure.h"
#include "tests/support/svg_texts.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// As a survey names them.
std::vector<std::string> long_names(std::size_t count) {
  std::vector<std::string> names;
  for (std::size_t i = 0; i < count; ++i)
    names.push_back("corroded glass of campaign " + std::to_string(10 + i) +
                    ", upper north aisle, west");
  return names;
}

Thumbnail gray_picture(std::uint32_t width, std::uint32_t height) {
  return {width, height, 1, std::vector<std::uint8_t>(std::size_t{3} * width * height, 128)};
}

std::string drawn_samples(const std::vector<std::string>& names) {
  SampleSet samples;
  std::vector<std::string> colors;
  for (const std::string& name : names) {
    const double x = samples.shapes.empty() ? 1 : 112;
    const double y = 8.0 * static_cast<double>(samples.shapes.size()) + 2;
    samples.shapes.push_back({samples.class_named(name), {rectangle_ring(x, y, 4, 4)}, {}, 0});
    colors.emplace_back("#aa2030");
  }
  return drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_samples_figure(plot, path, "p.png", samples, colors,
                       std::vector<std::uint64_t>(names.size(), 16), gray_picture(120, 80));
  });
}

}  // namespace

TEST_CASE("long names of classes stay on the page, and are told from each other",
          "[figure][room]") {
  const std::vector<std::string> names = long_names(6);
  const std::string samples = drawn_samples(names);
  CHECK(texts_off_page(samples) == std::vector<std::string>{});
  CHECK(has_text(samples, "\u2026ampaign 10, upper n\u2026   16 pixels"));
  // Beside a shape at the edge of the picture a name begins or ends with the picture.
  CHECK(text_in(samples, names[0]).left > 50);
  ErrorMatrix matrix(6, 6);
  for (std::size_t c = 0; c < 6; ++c) matrix.add(c, (c + 1) % 6, 9);
  const Accuracy accuracy = accuracy_of(matrix, 0.95);
  for (const bool as_bars : {false, true}) {
    const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
      if (as_bars) {
        add_accuracy_figure(plot, path, "m", names, accuracy);
      } else {
        add_matrix_figure(plot, path, "m", names, matrix, accuracy);
      }
    });
    CHECK(texts_off_page(svg).empty());
    CHECK_THAT(svg, Catch::Contains("campaign 10") && Catch::Contains("campaign 15"));
  }
}

TEST_CASE("long names stand beside the dots of a scatter figure, not on them", "[figure][room]") {
  Model model;
  model.features = channels_named("lab.a,lab.b");
  double x = 0;
  for (const std::string& name : long_names(3)) {
    ClassSums sums(2);
    for (const double step : {0.0, 1.0, 3.0}) {
      const double at[2] = {x + step, step * step};
      sums.add(at);
    }
    x += 20;
    model.classes.push_back({name, "#aa2030", sums.statistics()});
  }
  const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_scatter_figure(plot, path, model, {0, 1}, {});
  });
  CHECK(texts_off_page(svg) == std::vector<std::string>{});
  // The names stand to the right of everything that is drawn.
  double names_begin = Plot::kWidth, axes_end = 0;
  for (const SvgText& text : svg_texts(svg)) {
    if (text.text.find("campaign 1") != std::string::npos) {
      names_begin = std::min(names_begin, text.left);
    } else if (text.top > Plot::kMargins.top) {
      axes_end = std::max(axes_end, text.right);
    }
  }
  CHECK(axes_end > Plot::kWidth / 2);
  CHECK(names_begin > axes_end);
  CHECK(names_begin < Plot::kWidth - 200);
}

TEST_CASE("pictures of a sheet whose long names are alike are told from each other",
          "[figure][room]") {
  std::vector<SheetCell> cells{{"query", gray_picture(60, 40)}};
  for (int i = 1; i <= 8; ++i)
    cells.push_back({.title = std::to_string(i) + ". ",
                     .picture = gray_picture(60, 40),
                     .name = "chapel-north-window-panel-" + std::to_string(i) +
                             "-before-cleaning-2026-11-30.png",
                     .behind = "  0.25"});
  const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_sheet(plot, path, "Pictures", "alike", cells);
  });
  CHECK(texts_off_page(svg).empty());
  for (const char* part : {"panel-1-before", "panel-8-before"})
    CHECK_THAT(svg, Catch::Contains(std::string("-") + part) && Catch::Contains("  0.25"));
}

TEST_CASE("coordinates of a strip are as many as can be read", "[figure][room]") {
  CHECK(coordinates_to(30, 10, 24) == std::vector<double>{0, 10, 20, 30});
  CHECK(coordinates_to(100, 10, 6) == std::vector<double>{0, 20, 40, 60, 80, 100});
  CHECK(coordinates_to(100, 10, 2) == std::vector<double>{0, 50, 100});
  CHECK(coordinates_to(2000, 10, 3) == std::vector<double>{0, 1000, 2000});
  CHECK(coordinates_to(9, 10, 0) == std::vector<double>{0});
  for (const Thumbnail& picture : {gray_picture(480, 12), gray_picture(12, 480)}) {
    const auto as_regions = [&](Plot& plot, const std::filesystem::path& path) {
      add_region_figure(plot, path, "strip.png", {}, "no region", picture);
    };
    const auto as_grid = [&](Plot& plot, const std::filesystem::path& path) {
      add_grid_figure(plot, path, "strip.png", picture);
    };
    for (const std::string& svg : {drawn(as_regions), drawn(as_grid)}) {
      CHECK(has_text(svg, "480"));
      // The page of a wide strip is no higher than that needs.
      const bool wide = picture.width > picture.height;
      CHECK((svg.find(" height=\"800\"") == std::string::npos) == wide);
    }
  }
}

TEST_CASE("the grid of a small picture has no lines within a pixel", "[figure][room]") {
  const auto svg_of = [](std::uint32_t width) {
    return drawn([&](Plot& plot, const std::filesystem::path& path) {
      add_grid_figure(plot, path, "p.png", gray_picture(width, width));
    });
  };
  CHECK(has_text(svg_of(5), "pixels from the top left; lines every 1"));
  CHECK(has_text(svg_of(60), "pixels from the top left; strong lines every 10, thin ones every 2"));
}

TEST_CASE("one pixel differs from none on a scale of counts", "[figure][room]") {
  for (const bool linear : {false, true}) {
    CHECK(heat_of_count(0, 1, linear) == 0);
    CHECK(heat_of_count(1, 1, linear) >= 0.1);
    CHECK(heat_of_count(5000, 5000, linear) == Approx(1));
    double before = 0;
    for (const std::uint64_t pixels : {1u, 2u, 10u, 100u, 4000u}) {
      const double heat = heat_of_count(pixels, 5000, linear);
      CHECK(heat > before);
      before = heat;
    }
  }
  CHECK(heat_of_count(1, 1'000'000, false) > 0.04);
}
