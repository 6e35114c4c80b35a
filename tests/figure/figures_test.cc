// What the figures say, read from their SVG form.
#include <catch2/catch.hpp>
#include <random>
#include <regex>

#include "figure/accuracy_figure.h"
#include "figure/compared_histograms_figure.h"
#include "figure/histogram_figure.h"
#include "figure/joint_figure.h"
#include "figure/map_figure.h"
#include "figure/patch_figure.h"
#include "figure/plot/text_lines.h"
#include "figure/region_figure.h"
#include "figure/sample_figure.h"
#include "figure/scatter_figure.h"
#include "figure/sheet_figure.h"
#include "tests/support/drawn_figure.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

int height_of(const std::string& svg) {
  std::smatch height;
  REQUIRE(std::regex_search(svg, height, std::regex(R"re(<svg[^>]* height="([0-9]+)")re")));
  return std::stoi(height[1]);
}

Thumbnail plain(std::uint32_t width, std::uint32_t height) {
  return {width, height, 2.0, std::vector<std::uint8_t>(3 * width * height, 128)};
}

Histogram histogram_of(const Channel& channel, const std::vector<float>& values) {
  PlaneBuffer plane(1);
  std::copy(values.begin(), values.end(), plane.plane(0));
  Block block;
  block.picture_width = 4096;
  block.size = block.counted_size = values.size();
  Histogram histogram(channel_binning(channel, 64, PictureInfo{}), channel.is_hue());
  histogram.add(block, plane.plane(0));
  return histogram;
}

std::size_t count_of(const std::string& text, const std::string& part) {
  std::size_t n = 0;
  for (std::size_t at = text.find(part); at != std::string::npos; at = text.find(part, at + 1)) ++n;
  return n;
}

}  // namespace

TEST_CASE("a histogram figure names its channels, units and medians", "[figure]") {
  const Channel red = channel_named("srgb.r"), hue = channel_named("hsv.h");
  const Histogram reds = histogram_of(red, {10, 10, 12, 200, 1500}),
                  hues = histogram_of(hue, {5, 200, 200, 359});
  const std::vector<HistogramSeries> series{{red, &reds, 12, true}, {hue, &hues}};
  const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_histogram_figure(plot, path, "pane.png", series, {}, plain(40, 30));
  });
  for (const char* text : {"Channel histograms of pane.png", "5 counted pixels", "median 12",
                           "srgb.r (0-255)", "hsv.h (degrees)", "pixels per bin"})
    CHECK_THAT(svg, Catch::Contains(text));
  const std::string logarithmic = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_histogram_figure(plot, path, "pane.png", series, {true}, plain(40, 30));
  });
  CHECK_THAT(logarithmic, Catch::Contains("the axes of counts are logarithmic"));
}

TEST_CASE("peaks are marked where they are and listed with their shares", "[figure]") {
  const Channel hue = channel_named("hsv.h");
  const Histogram hues = histogram_of(hue, {5, 200, 200, 359});
  HistogramSeries series{hue, &hues};
  // One of the two runs through 360, and is drawn in two pieces.
  series.peaks = {{"1", {{{195, 205}, {0, 0}}}, "#2243a6", 50.0},
                  {"2", {{{340, 20}, {0, 0}}}, "#a01c2e", 48.25}};
  const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_histogram_figure(plot, path, "pane.png", {series}, {}, plain(40, 30));
  });
  CHECK_THAT(svg, Catch::Contains("1   50.0 %") && Catch::Contains("2   48.2 %"));
  // gnuplot writes colors as decimal numbers: a swatch and two pieces of a band.
  CHECK(count_of(svg, "rgb(160,  28,  46)") >= 3);

  const Channel saturation = channel_named("hsv.s");
  JointHistogram joint(channel_binning(hue, 12, PictureInfo{}), true,
                       channel_binning(saturation, 5, PictureInfo{}), false);
  const std::vector<PeakMark> marks{{"1", {{{330, 30}, {40, 80}}}, "#a01c2e", 12.0}};
  const auto heat = [&] {
    return drawn([&](Plot& plot, const std::filesystem::path& path) {
      add_joint_figure(plot, path, "pane.png", hue, saturation, joint, marks, plain(40, 30));
    });
  };
  // A gray picture fills no bin.
  CHECK_THAT(heat(), Catch::Contains("no pixel lies in these bins"));
  PlaneBuffer planes(2);
  planes.plane(0)[0] = 200;
  planes.plane(1)[0] = 50;
  Block block;
  block.size = block.counted_size = 1;
  joint.add(block, planes.plane(0), planes.plane(1));
  const std::string filled = heat();
  for (const char* text : {"Joint histogram of pane.png", "hsv.h (degrees)", "hsv.s (%)",
                           "pixels per bin, logarithmic", "1   12.0 %"})
    CHECK_THAT(filled, Catch::Contains(text));
}

TEST_CASE("a page with many panels of peaks is higher, and lists them all", "[figure]") {
  const std::vector<std::string> names{"lab.l", "lab.a", "lab.b",   "hsv.h",    "hsv.s",
                                       "hsv.v", "luv.u", "ycbcr.y", "ycbcr.cb", "oklab.l"};
  const Histogram counts = histogram_of(channel_named("lab.l"), {5, 20, 20, 59});
  std::vector<HistogramSeries> series;
  for (const std::string& name : names) {
    series.push_back({channel_named(name), &counts, 20, true});
    series.back().peaks = {{name + " 1", {{{15, 25}, {0, 0}}}, "#2243a6", 50.0},
                           {name + " 2", {{{54, 64}, {0, 0}}}, "#a01c2e", 25.0}};
  }
  const auto page = [&](std::size_t panels, bool logarithmic) {
    return drawn([&](Plot& plot, const std::filesystem::path& path) {
      add_histogram_figure(plot, path, "pane.png", {series.begin(), series.begin() + panels},
                           {logarithmic}, plain(40, 30));
    });
  };
  CHECK(height_of(page(4, false)) == 800);
  for (const bool logarithmic : {false, true}) {
    const std::string many = page(10, logarithmic);
    CHECK(height_of(many) > 1400);
    for (const std::string& name : names)
      CHECK_THAT(many,
                 Catch::Contains(name + " 2   25.0 %") && Catch::Contains(name + "  median 20"));
  }
}

TEST_CASE("histograms of several pictures share one key and mark the medians", "[figure]") {
  const Channel red = channel_named("srgb.r"), green = channel_named("srgb.g");
  const Histogram reds = histogram_of(red, {10, 10, 12, 200}),
                  greens = histogram_of(green, {50, 60, 70, 70});
  const std::vector<HistogramSeries> series{{red, &reds, 10, true}, {green, &greens, 60, true}};
  const auto svg_of = [&](std::size_t all) {
    return drawn([&](Plot& plot, const std::filesystem::path& path) {
      add_compared_histograms_figure(
          plot, path, {{"a.png", series}, {"b.png", series}, {"c.png", series}}, all, {});
    });
  };
  const std::string svg = svg_of(3);
  CHECK_THAT(svg, Catch::Contains("Channel histograms of 3 pictures"));
  CHECK_THAT(svg_of(5), Catch::Contains("Channel histograms of the first 3 of 5 pictures"));
  std::size_t keys = 0, titles = 0;
  for (const SvgText& text : svg_texts(svg)) {
    keys += text.text == "srgb.g";
    titles += text.text == "b.png";
  }
  CHECK(keys == 1);
  CHECK(titles == 1);
  CHECK_THAT(svg, Catch::Contains("medians are dashed") && !Catch::Contains("median 10"));
  CHECK(count_of(svg, "stroke-dasharray") == 6);
}

TEST_CASE("a number that has no room beside a larger region's is left out", "[figure]") {
  std::vector<ShownRegion> regions(3);
  for (std::size_t r = 0; r < 3; ++r) {
    regions[r].number = r + 21;
    regions[r].measures.width = regions[r].measures.height = 4;
    regions[r].measures.center_x = r == 2 ? 60 : 10 + 0.5 * static_cast<double>(r);
    regions[r].measures.center_y = 20;
  }
  const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_region_figure(plot, path, "pane.png", regions, "all 3 regions", plain(40, 30));
  });
  CHECK_THAT(svg, Catch::Contains(">21<") && Catch::Contains(">23<") && !Catch::Contains(">22<"));
}

TEST_CASE("the number of a region stands inside it, also where its center does not", "[figure]") {
  // Lead around a pane: the outer ring, and that of its hole. The page is the picture 12.8 times.
  ShownRegion lead;
  lead.number = 7;
  lead.measures = RegionMeasures{};
  lead.measures.width = lead.measures.height = 60;
  lead.measures.center_x = lead.measures.center_y = 30;
  lead.rings = {{{0, 0}, {60, 0}, {60, 60}, {0, 60}, {0, 0}},
                {{6, 6}, {46, 6}, {46, 54}, {6, 54}, {6, 6}}};
  const auto place_of = [&](const ShownRegion& region) {
    const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
      add_region_figure(plot, path, "pane.png", {region}, "all 1 regions", plain(30, 30));
    });
    double left = 0, right = 0, number = 0;
    for (const SvgText& text : svg_texts(svg)) {
      const double middle = (text.left + text.right) / 2;
      if (text.text == "7") number = middle;
      if (text.text == "0" && text.top > 600) left = middle;
      if (text.text == "40" && text.top > 600) right = middle;
    }
    return 40 * (number - left) / (right - left);
  };
  CHECK(place_of(lead) == Approx(53).margin(0.5));
  lead.rings.pop_back();
  CHECK(place_of(lead) == Approx(30).margin(0.5));
}

TEST_CASE("texts that lie on each other are found", "[figure]") {
  const auto text = [](const char* place, const char* words) {
    return std::string("<g transform=\"") + place +
           "\" font-size=\"14.67\"  text-anchor=\"middle\">\n<text>" + words + "</text>\n</g>\n";
  };
  const std::string level = text("translate(100.00,50.00)", "median 12.2");
  const auto pairs = [&](const std::string& other) {
    return overlapping_texts(svg_texts(level + other));
  };
  CHECK(pairs(text("translate(120.00,52.00)", "4")) == std::vector<std::string>{"median 12.2 | 4"});
  CHECK(pairs(text("translate(100.00,80.00) rotate(270)", "pixels per bin")).size() == 1);
  CHECK(pairs(text("translate(220.00,50.00)", "4")).empty());
  CHECK(pairs(text("translate(100.00,70.00)", "4")).empty());
}

TEST_CASE("a matrix figure shows counts, shares of rows, totals and accuracies", "[figure]") {
  ErrorMatrix matrix(3, 2);
  matrix.add(0, 0, 1200);
  matrix.add(0, 1, 300);
  matrix.add(1, 1, 450);
  matrix.add(2, 0, 50);
  const Accuracy accuracy = accuracy_of(matrix, 0.95);
  const std::vector<std::string> rows{"ruby", "lead", "unclassified"};
  const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_matrix_figure(plot, path, "pane.classes.png", rows, matrix, accuracy);
  });
  for (const char* text :
       {"Error matrix of pane.classes.png", "rows: what the map says; columns: the reference",
        "1,200", "80.0 %", "300", "20.0 %", "unclassified", "1,500", "750", "96.0 %", "2,000",
        "82.5 %"})
    CHECK_THAT(svg, Catch::Contains(text));
  // A row without pixels has no share to show, and a class never mapped no accuracy.
  ErrorMatrix empty(3, 2);
  empty.add(0, 0, 4);
  CHECK_THAT(drawn([&](Plot& plot, const std::filesystem::path& path) {
               add_matrix_figure(plot, path, "m", rows, empty, accuracy_of(empty, 0.95));
             }),
             Catch::Contains("100.0 %"));
}

TEST_CASE("a matrix of many classes leaves texts out rather than overlap them", "[figure]") {
  const std::size_t n = 20;
  ErrorMatrix matrix(n + 1, n);
  std::vector<std::string> rows;
  for (std::size_t c = 0; c < n; ++c) {
    matrix.add(c, c, 777);
    rows.push_back("class " + std::to_string(c + 1));
  }
  rows.push_back("unclassified");
  const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_matrix_figure(plot, path, "m", rows, matrix, accuracy_of(matrix, 0.95));
  });
  // 777 stands in the totals of rows and columns only.
  CHECK(count_of(svg, ">777<") <= 2 * n);
}

TEST_CASE("accuracies are bars with intervals", "[figure]") {
  ErrorMatrix matrix(2, 2);
  matrix.add(0, 0, 40);
  matrix.add(1, 0, 10);
  matrix.add(1, 1, 50);
  const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_accuracy_figure(plot, path, "pane.classes.png", {"ruby", "lead"},
                        accuracy_of(matrix, 0.95));
  });
  for (const char* text : {"Accuracy of pane.classes.png", "100 pixels assessed: overall 90.0 %",
                           "kappa 0.800", "ruby", "lead", "percent of the pixels"})
    CHECK_THAT(svg, Catch::Contains(text));
}

TEST_CASE("of many patches those that stay farthest off are shown", "[figure]") {
  const Color gray{&spaces::kSrgb, {128, 128, 128}};
  std::vector<ShownPatch> patches;
  for (int i = 0; i < 100; ++i)
    patches.push_back({"p" + std::to_string(i),
                       gray,
                       {&spaces::kSrgb, {200, 0, 0}},
                       gray,
                       9.0 + i,
                       i % 2 == 0 ? 1.0 + i : 0.125});
  const auto figure = [&](const std::vector<ShownPatch>& of) {
    return drawn([&](Plot& plot, const std::filesystem::path& path) {
      add_patch_figure(plot, path, "t.png", "so far", of);
    });
  };
  const std::string svg = figure(patches);
  // All 50 of even numbers, then the first of those that are alike.
  for (const char* text : {"Patches of t.png", "so far", "(the 80 of 100 that stay farthest off)",
                           ">p98<", "107.0 to 99.0", ">p1<", ">p59<"})
    CHECK_THAT(svg, Catch::Contains(text));
  CHECK_THAT(svg, !Catch::Contains(">p61<"));
  patches.resize(80);
  CHECK_THAT(figure(patches), !Catch::Contains("farthest off"));
}

TEST_CASE("map figures name what they show", "[figure]") {
  const Thumbnail picture = plain(60, 40);
  const std::string map = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_class_map_figure(plot, path, "pane.png",
                         {{"ruby", "#a01c2e", 41.25}, {"lead", "#3c3d40", 58.75}}, picture,
                         picture);
  });
  for (const char* text :
       {"Class map of pane.png", "picture", "class map", "ruby   41.2 %", "lead   58.8 %"})
    CHECK_THAT(map, Catch::Contains(text));

  const std::string errors = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_error_map_figure(plot, path, "pane.classes.png",
                         {{"right", "#9aa0a3"}, {"should be ruby", "#a01c2e"}}, picture, picture);
  });
  CHECK_THAT(errors, Catch::Contains("Errors of pane.classes.png") &&
                         Catch::Contains("should be ruby") && !Catch::Contains(" %<"));

  const std::string sampled = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_sampled_figure(plot, path, "pane.classes.png", {{3.5, 4.5}, {70.5, 8.5}}, {{9.5, 9.5}},
                       picture);
  });
  CHECK_THAT(sampled, Catch::Contains("2 right (rings), 1 wrong (crosses)"));

  const std::string mask = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_mask_figure(plot, path, "pane.png", "hsv.h in 200..260 and hsv.s >= 40", 12.345, picture,
                    picture, picture);
  });
  for (const char* text : {"Selection in pane.png", "12.35 % of the counted pixels", "cut-out",
                           "hsv.h in 200..260 and hsv.s"})
    CHECK_THAT(mask, Catch::Contains(text));
}

TEST_CASE("picture, mask and cut-out stand side by side, the selection below", "[figure]") {
  const auto page_of = [](const Thumbnail& picture, const std::string& selection) {
    return drawn([&](Plot& plot, const std::filesystem::path& path) {
      add_mask_figure(plot, path, "pane.png", selection, 12.345, picture, picture, picture);
    });
  };
  const std::string page = page_of(plain(60, 40), "hsv.h in 200..260");
  std::vector<double> middles, heights;
  for (const SvgText& text : svg_texts(page))
    for (const char* title : {"picture", "mask", "cut-out"})
      if (text.text == title) {
        middles.push_back((text.left + text.right) / 2);
        heights.push_back(text.top);
      }
  REQUIRE(middles.size() == 3);
  CHECK(middles[1] - middles[0] == Approx(middles[2] - middles[1]).margin(2));
  CHECK(heights[0] == heights[2]);
  // 104 above with the titles, a picture 393 pixels wide, a gap, the selection with its title, and
  // the margin of the page.
  CHECK(height_of(page) == 104 + 262 + 24 + 2 * 32 + 20);
  std::string lengthy = "gray > 1";
  for (int i = 0; i < 80; ++i) lengthy += " and lab.l > " + std::to_string(i);
  const std::string most = page_of(plain(40, 60), lengthy);
  CHECK(height_of(most) == 800);
  CHECK_THAT(most, Catch::Contains(" ..."));
}

TEST_CASE("a table of pictures is turned where that makes them larger", "[figure]") {
  std::vector<SheetCell> cells;
  for (const char* row : {"a", "b", "c", "d"})
    for (const char* column : {"1", "2", "3"})
      cells.push_back({std::string(row) + column, plain(60, 40)});
  // Where the titles stand, row by row.
  const auto titles = [&](std::size_t columns) {
    const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
      add_sheet(plot, path, "sheet", "", cells, columns);
    });
    std::vector<SvgText> texts = svg_texts(svg);
    texts.erase(texts.begin());  // of the page
    std::stable_sort(texts.begin(), texts.end(), [](const SvgText& a, const SvgText& b) {
      return std::pair(std::lround(a.top), a.left) < std::pair(std::lround(b.top), b.left);
    });
    std::string all;
    for (const SvgText& text : texts) all += text.text + " ";
    return all;
  };
  CHECK(titles(3) == "a1 b1 c1 d1 a2 b2 c2 d2 a3 b3 c3 d3 ");
  CHECK(titles(0) == "a1 a2 a3 b1 b2 b3 c1 c2 c3 d1 d2 d3 ");
}

TEST_CASE("narrow pictures of a sheet stand together, under their whole titles", "[figure]") {
  std::vector<SheetCell> cells;
  for (const char* title : {"2 groups, lone 0.11 %", "3 groups, lone 0.12 %",
                            "4 groups, lone 0.13 %", "5 groups, lone 0.14 %"})
    cells.push_back({title, plain(20, 200)});
  const std::string svg = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_sheet(plot, path, "sheet", "", cells);
  });
  std::vector<double> lefts;
  for (const SvgText& text : svg_texts(svg))
    for (const SheetCell& cell : cells)
      if (text.text == cell.title) lefts.push_back(text.left);
  REQUIRE(lefts.size() == cells.size());
  CHECK(lefts.back() - lefts.front() < 800);
}

TEST_CASE("the page of a map is as high as its pictures and legend need", "[figure]") {
  const auto map_of = [](const Thumbnail& picture, std::size_t classes) {
    return drawn([&](Plot& plot, const std::filesystem::path& path) {
      const std::vector<LegendLine> legend(classes, {"pane", "#a01c2e", 100.0 / double(classes)});
      add_class_map_figure(plot, path, "pane.png", legend, picture, picture);
    });
  };
  // A picture is 602 pixels wide; above it there are 104, below it a gap of 24, and each line of
  // the legend takes 34.
  const std::string wide = map_of(plain(60, 40), 2), strip = map_of(plain(60, 6), 2);
  CHECK(height_of(wide) == 104 + 401 + 24 + 34 + 20);
  CHECK(height_of(strip) == 104 + 60 + 24 + 34 + 20);
  CHECK(height_of(map_of(plain(60, 40), 7)) == height_of(wide) + 34);
  // No page is higher than others are: pictures become smaller, and then lines are left out.
  CHECK(height_of(map_of(plain(40, 60), 2)) == 800);
  const std::string many = map_of(plain(60, 40), 200);
  CHECK(height_of(many) == 800);
  CHECK(count_of(many, "pane   0.5 %") + 1 < 200);
  CHECK_THAT(many, Catch::Contains("more"));
}

TEST_CASE("samples are outlined and counted, classes stand among their features", "[figure]") {
  SampleSet samples;
  samples.classes = {{"ruby", "#a01c2e"}, {"lead", "#3c3d40"}};
  samples.shapes = {{0, {{{2, 2}, {9, 2}, {9, 9}, {2, 2}}}, {}, 0}, {1, {}, {20.5, 20.5}, 3}};
  const std::string outlines = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_samples_figure(plot, path, "pane.png", samples, {"#a01c2e", "#3c3d40"}, {1925, 29},
                       plain(60, 40));
  });
  for (const char* text : {"Samples on pane.png", "1,954 sample pixels in 2 regions",
                           "ruby   1,925 pixels", "lead   29 pixels", ">ruby<", ">lead<"})
    CHECK_THAT(outlines, Catch::Contains(text));
  // Outlined in the color of the class: a swatch and a line.
  CHECK(count_of(outlines, "rgb(160,  28,  46)") >= 2);
  // Of two that lie close together the second has no room for its name.
  samples.shapes.push_back({1, {}, {9.5, 4.5}, 3});
  const std::string close = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_samples_figure(plot, path, "pane.png", samples, {"#a01c2e", "#3c3d40"}, {1925, 58},
                       plain(60, 40));
  });
  CHECK(count_of(close, ">lead<") == count_of(outlines, ">lead<"));
  samples.shapes.back().point = {50.5, 30.5};
  const std::string apart = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_samples_figure(plot, path, "pane.png", samples, {"#a01c2e", "#3c3d40"}, {1925, 58},
                       plain(60, 40));
  });
  CHECK(count_of(apart, ">lead<") == 2 * count_of(outlines, ">lead<"));

  Model model;
  model.features = channels_named("lab.a,lab.b");
  std::mt19937 random(1);
  std::vector<ScatterPoints> points(2);
  for (int c = 0; c < 2; ++c) {
    ClassSums sums(2);
    for (int i = 0; i < 50; ++i) {
      const double at[2] = {c * 40.0 + random() % 10, static_cast<double>(random() % 9)};
      sums.add(at);
      points[static_cast<std::size_t>(c)].push_back(
          {static_cast<float>(at[0]), static_cast<float>(at[1])});
    }
    model.classes.push_back({c ? "lead" : "ruby", c ? "#3c3d40" : "#a01c2e", sums.statistics()});
  }
  const std::string scatter = drawn([&](Plot& plot, const std::filesystem::path& path) {
    add_scatter_figure(plot, path, model, {0, 1}, {points, points[1], {{5, 5}, {44, 2}}});
  });
  for (const char* text : {"Classes in lab.a and lab.b", "two standard deviations",
                           "gray: the whole pictures", "rings: the pixels", "ruby", "lead"})
    CHECK_THAT(scatter, Catch::Contains(text));
}

TEST_CASE("text is broken between words", "[figure]") {
  CHECK(text_lines("one two three", 7) == std::vector<std::string>{"one two", "three"});
  CHECK(text_lines("a verylongword b", 4) == std::vector<std::string>{"a", "verylongword", "b"});
  CHECK(text_lines("", 5) == std::vector<std::string>{""});
  CHECK(text_lines("exactly ten", 11) == std::vector<std::string>{"exactly ten"});
}
