// The text for people: what each command prints, and that it says the same as the JSON.
#include <catch2/catch.hpp>
#include <cmath>
#include <sstream>

#include "cli/text/channel_text.h"
#include "cli/text/json_format.h"
#include "cli/text/text_table.h"
#include "demo/test_card.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using Catch::Contains;

namespace {

std::string text_of(const TempDir& dir, const std::vector<std::string>& arguments) {
  const Outcome run = run_tool(dir, arguments);
  INFO(run.err);
  REQUIRE(run.exit_code == 0);
  return run.out;
}

void write_text_card(const TempDir& dir) {
  write_rgb(dir / "card.png", 240, 160, demo::draw_test_card());
}

}  // namespace

TEST_CASE("columns are as wide as they need, words left, numbers right", "[cli][text]") {
  const Json rows = Json::parse(R"([
    {"name": "ruby", "pixels": 1234, "percent": 9.876, "mean": [12.5, 0.14351], "far": 2, "way": 4},
    {"name": "r\u00f6tlich", "pixels": 7, "percent": null, "mean": [3, -0.000004]},
    {"name": "lead", "pixels": 80, "percent": 100, "mean": [-101.25, null], "far": 1, "way": 0.25}])");
  std::ostringstream out;
  cli::TextTable(rows)
      .words("class", "name")
      .counts("pixels", "pixels")
      .percents("share", "percent")
      .numbers("all", "mean/0")
      .values_of("oklab.a", "mean/1")
      .filled("nearest", "{} at {:.1f}", {"far", "way"})
      .decimals("way", "way", 1)
      .cells("first", [](const Json& row) { return row["name"].get<std::string>().substr(0, 1); })
      .print(out);
  CHECK(out.str() ==
        "  class    pixels     share     all  oklab.a   nearest  way  first\n"
        "  ruby      1,234    9.88 %    12.5   0.1435  2 at 4.0  4.0      r\n"
        "  r\u00f6tlich       7               3.0   0.0000                     r\n"
        "  lead         80  100.00 %  -101.2           1 at 0.2  0.2      l\n");
  CHECK(cli::counted(0) == "0");
  CHECK(cli::counted(999) == "999");
  CHECK(cli::counted(1234567) == "1,234,567");
  CHECK(cli::rough_percent(0) == "0 %");
  CHECK(cli::rough_percent(4e-6) == "less than 0.001 %");
  CHECK(cli::rough_percent(0.0123) == "0.0123 %");
  CHECK(cli::rough_percent(55.46) == "55.5 %");
  CHECK(cli::rough_percent(100) == "100 %");
  CHECK(cli::plural(1, "pixel") == "1 pixel");
  CHECK(cli::plural(2500, "pixel") == "2,500 pixels");
}

TEST_CASE("numbers that stand together have the same decimals", "[cli][text]") {
  using Texts = std::vector<std::string>;
  CHECK(cli::aligned_numbers({0.4415, 0.00104, -0.1077}, 4) ==
        Texts{"0.4415", "0.0010", "-0.1077"});
  CHECK(cli::aligned_numbers({0.00467, 0.00001}, 4) == Texts{"0.004670", "0.000010"});
  CHECK(cli::aligned_numbers({65535, -3, 0}, 4) == Texts{"65535", "-3", "0"});
  CHECK(cli::aligned_numbers({12345.6, 0.5}, 4) == Texts{"12346", "0"});
  CHECK(cli::aligned_numbers({-0.001, 50.25}, 3) == Texts{"0.0", "50.2"});
  CHECK(cli::aligned_numbers({std::nan(""), 2.5}, 2) == Texts{"", "2.5"});
  CHECK(cli::aligned_numbers({}, 4).empty());
}

TEST_CASE("rows of channels have decimals of their own, and tell their whites", "[cli][text]") {
  const Json rows = Json::parse(R"([
    {"channel": "srgb.r", "unit": "0-255", "low": 0, "high": 255},
    {"channel": "lab.a", "unit": "", "low": -0.00001, "high": 50.5},
    {"channel": "oklch.c", "unit": "", "low": 0.0012, "high": 0.33}])");
  std::ostringstream out;
  cli::TextTable(rows)
      .channels("plane", "channel")
      .numbers_by_row({{"black", "low"}, {"white", "high"}}, 4)
      .print(out);
  CHECK(out.str() ==
        "  plane            black   white\n"
        "  srgb.r (0-255)       0     255\n"
        "  lab.a             0.00   50.50\n"
        "  oklch.c         0.0012  0.3300\n"
        "  white of lab: D50\n");
}

TEST_CASE("values of a summary go into texts as they are", "[cli][text]") {
  const Json entry{
      {"name", "ruby"}, {"pixels", 12}, {"off", -3}, {"percent", 2.345}, {"whole", 4.0}};
  CHECK(fmt::format("{} {} {} {} {}", entry["name"], entry["pixels"], entry["off"],
                    entry["percent"], entry["whole"]) == "ruby 12 -3 2.345 4");
  CHECK(fmt::format("{:.1f} {:.2f} {:.4g}", entry["percent"], entry["pixels"], entry["off"]) ==
        "2.3 12.00 -3");
  CHECK(fmt::format("[{:<6}][{:>4}]", entry["name"], entry["pixels"]) == "[ruby  ][  12]");
  CHECK_THROWS_AS(fmt::format("{}", Json()), fmt::format_error);
  CHECK_THROWS_AS(fmt::format("{}", entry), fmt::format_error);
}

TEST_CASE("where values of Lab or Luv are shown, their white is too", "[cli][text]") {
  const auto whites = [](const std::vector<std::string>& channels) {
    std::ostringstream out;
    cli::print_whites(channels, out);
    return out.str();
  };
  CHECK(whites({"srgb.r", "oklab.l", "gray", "file.0", "warmth"}).empty());
  CHECK(whites({"lab.l", "srgb.r", "lab.b"}) == "  white of lab: D50\n");
  CHECK(whites({"mean5(lch-d65.c)", "luv.u"}) == "  white of lch-d65: D65, of luv: D65\n");
  const TempDir dir;
  write_text_card(dir);
  const std::vector<std::vector<std::string>> all{
      {"inspect", "card.png", "--space", "lab"},
      {"histogram", "card.png", "--channels", "lab.l", "-o", "h", "--figures", "none"},
      {"sheet", "card.png", "--channels", "lab", "-o", "s"},
      {"slice", "card.png", "--channel", "lab.l", "--cuts", "0,50,100"},
      {"cluster", "card.png", "--k", "2", "--features", "lab.l"},
      {"train", "card.png", "--sample", "a=0,0,9,9", "--sample", "b=200,100,9,9", "-o", "t"},
      {"explain", "card.png", "--model", "t/model.json", "--at", "3,3"}};
  for (const auto& arguments : all) {
    INFO(arguments[0]);
    CHECK_THAT(text_of(dir, arguments), Contains("\n  white of lab: D50\n"));
  }
  CHECK_THAT(text_of(dir, {"palette", "card.png"}), Contains("\n  L C h: lch, white D50\n"));
}

TEST_CASE("inspect prints the file, what it only pretends to be, and its channels", "[cli][text]") {
  const TempDir dir;
  write_text_card(dir);
  const std::string text = text_of(dir, {"inspect", "card.png", "--at", "0,0", "--at", "100,130"});
  for (const char* part :
       {"card.png\n", "PNG, 240 x 160 pixels, RGB, 8-bit", "space srgb (sRGB), sRGB chunk",
        "alpha none, orientation 1", "24 distinct colors", "38,400 pixels counted",
        "srgb.r (0-255)", "pixel 0,0  #ff0000", "hsv     h 0  s 100  v 100", "(white D50)",
        "h none"})
    CHECK_THAT(text, Contains(part));
  write_picture(dir / "gray.png", spec_of(2, 1, 4),
                bytes_of(std::vector<std::uint8_t>{9, 9, 9, 255, 7, 7, 7, 255}));
  const std::string gray = text_of(dir, {"inspect", "gray.png"});
  CHECK_THAT(gray, Contains("note: stored as color, but every pixel is gray") &&
                       Contains("note: has alpha, but every pixel is opaque"));
}

TEST_CASE("pixels that do not count are said, each kind on its line", "[cli][text]") {
  const TempDir dir;
  write_picture(dir / "a.png", spec_of(4, 1, 4),
                bytes_of(std::vector<std::uint8_t>{200, 10, 10, 255, 200, 10, 10, 0,  //
                                                   10, 10, 200, 255, 10, 200, 10, 255}));
  const auto masked = [&](const std::vector<std::string>& more) {
    return text_of(dir, with({"mask", "a.png", "--where", "srgb.r > 100"}, more));
  };
  CHECK_THAT(masked({}), Contains("1 of 3 counted pixels selected, 33.33 %") &&
                             Contains("not counted: 1 pixel fully transparent"));
  CHECK_THAT(masked({"--alpha", "count"}),
             Contains("2 of 4 counted pixels selected, 50.00 %") && !Contains("not counted"));
  CHECK_THAT(masked({"--region", "0,0,3,1"}),
             Contains("1 of 2 counted") && Contains("not counted: 1 pixel outside the region"));
  CHECK_THAT(masked({"--region", "percent:50,0,50,100"}), Contains("0 of 2 counted"));
  write_picture(dir / "m.png", spec_of(4, 1, 1),
                bytes_of(std::vector<std::uint8_t>{255, 255, 0, 0}));
  CHECK_THAT(masked({"--within", "m.png"}),
             Contains("1 of 1 counted") && Contains("not counted: 2 pixels outside the mask"));
}

TEST_CASE("grays have no hue, and a floor makes more of them so", "[cli][text]") {
  const TempDir dir;
  write_rgb(dir / "g.png", 3, 1, {100, 100, 100, 110, 100, 100, 200, 10, 10});
  const auto selected = [&](const std::string& where, const std::string& floor) {
    return text_of(dir, {"mask", "g.png", "--where", where, "--hue-floor", floor});
  };
  CHECK_THAT(selected("hsv.h in 350..10", "0"), Contains("2 of 3"));
  CHECK_THAT(selected("hsv.h in 350..10", "5"), Contains("1 of 3"));
  // A missing hue is neither inside nor outside.
  CHECK_THAT(selected("not hsv.h in 350..10", "0"), Contains("0 of 3"));
  CHECK_THAT(selected("not hsv.h in 350..10 or hsv.s < 5", "0"), Contains("1 of 3"));
  const std::string histogram =
      text_of(dir, {"histogram", "g.png", "--channels", "hsv.h", "--hue-floor", "5"});
  CHECK_THAT(histogram, Contains("near gray"));
}

TEST_CASE("convert says what left the range of the file", "[cli][text]") {
  const TempDir dir;
  PictureSpec spec = spec_of(2, 1, 3, SampleType::kF32);
  spec.space = &spaces::kLab;
  write_picture(dir / "in.tif", spec, bytes_of(std::vector<float>{60, 120, -100, 50, 0, 0}));
  const std::string text =
      text_of(dir, {"convert", "in.tif", "--to", "srgb", "--depth", "8", "-o", "o.png"});
  CHECK_THAT(text, Contains("in.tif: lab to srgb (sRGB), 2 x 1 pixels, 8-bit") &&
                       Contains("50 %") && Contains("wrote o.png"));
  CHECK_THAT(text_of(dir, {"convert", "in.tif", "--to", "hsv", "-o", "h.tif"}),
             Contains("clipped to 0-255 before the conversion"));
}

TEST_CASE("histogram prints a line a channel, pairs and peaks", "[cli][text]") {
  const TempDir dir;
  write_text_card(dir);
  const std::string text = text_of(dir, {"histogram", "card.png", "--channels", "srgb.r", "--joint",
                                         "hsv.h,hsv.s", "--peaks", "3", "--cube", "3"});
  for (const char* part :
       {"card.png: 38,400 pixels counted", "srgb.r (0-255)   256", "hsv.h with hsv.s: fullest at",
        "9,600 pixels without hue", "cube of oklab:", "of 27 bins hold pixels",
        "peaks of srgb.r, smoothed by 2.56 of srgb.r", "peak, as a --where text", "1  srgb.r in "})
    CHECK_THAT(text, Contains(part));
  // Nothing of hues where there is none.
  CHECK_THAT(text_of(dir, {"histogram", "card.png", "--joint", "lab.a,lab.b"}), !Contains("hue"));
}

TEST_CASE("train and classify print classes, the hardest pair, and shares", "[cli][text]") {
  const TempDir dir;
  std::filesystem::copy(CHALCEDONY_DEMO_DATA, dir.path());
  const std::string trained = text_of(dir, {"train", "panel-a.png", "--samples",
                                            "panel-a.samples.geojson", "--method", "mahalanobis"});
  for (const char* part : {"panel-a.png: 39 sample regions from panel-a.samples.geojson",
                           "mahalanobis, class means:", "ruby     #a01c2e     925",
                           "hardest to tell apart: ", "Jeffries-Matusita"})
    CHECK_THAT(trained, Contains(part));
  const std::string mapped = text_of(
      dir, {"classify", "panel-c.png", "--model", "glass.model.json", "--region", "0,0,100,100"});
  CHECK_THAT(mapped, Contains("panel-c.png: 10,000 pixels counted, minimum-distance") &&
                         Contains("share of counted") &&
                         Contains("not counted: 162,800 pixels outside the region"));
}

TEST_CASE("train says what features are divided by and which samples are left out", "[cli][text]") {
  const TempDir dir;
  write_text_card(dir);
  const std::string text =
      text_of(dir, {"train", "card.png", "--sample", "red=0,0,20,20", "--sample",
                    "dark=200,100,20,20", "--features", "lab.l,hsv.s", "--region", "0,0,240,110",
                    "--figures", "none", "-o", "t"});
  CHECK_THAT(text, Contains("  left out: 200 sample pixels that do not count or lack a feature\n"));
  CHECK_THAT(text,
             Contains("  features are divided by their standard deviation over the samples: "));
}

TEST_CASE("explain prints the arithmetic of each method", "[cli][text]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  const auto explained = [&](const std::string& method) {
    text_of(dir,
            {"train", "s.png", "--sample", "red=0,0,8,4", "--sample", "blue=9,0,4,4", "--features",
             "srgb.r,srgb.b", "--method", method, "--figures", "none", "-o", method});
    return text_of(dir, {"explain", "s.png", "--model", method + "/model.json", "--at", "1,1"});
  };
  CHECK(explained("parallelepiped") ==
        "s.png, parallelepiped:\n"
        "  1. pixel 1,1: srgb.r 200, srgb.b 40\n"
        "    class                      srgb.r                  srgb.b  box      half-widths   "
        "reach\n"
        "    red            in 200..200 (   0)  in 39.97..40.03 (   0)  inside           0.0    90 "
        "%\n"
        "    blue   not in 29.97..30.03 (6667)  not in 180..180 (5490)  outside       6666.6  "
        "beyond\n"
        "    reach: as near as so many of the class's samples; beyond: farther than all\n"
        "    so: red (6667 half-widths less than blue)\n");
  CHECK(explained("nearest-neighbor") ==
        "s.png, nearest-neighbor:\n"
        "  1. pixel 1,1: srgb.r 200, srgb.b 40\n"
        "    class  votes  distance   reach\n"
        "    red        7      0.00    90 %\n"
        "    blue       0    220.23  beyond\n"
        "    reach: as near as so many of the class's samples; beyond: farther than all\n"
        "    neighbor  distance  sample pixels\n"
        "    red              0             32\n"
        "    so: red (7 votes more than blue)\n");
}

TEST_CASE("cluster says how its features are scaled and where colors end", "[cli][text]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  const std::string text = text_of(
      dir, {"cluster", "s.png", "--k", "2..6", "--features", "lab.l,hsv.s", "--figures", "none"});
  CHECK_THAT(text, Contains("there are too few different colors for more than 4 groups\n"));
  CHECK_THAT(text, Contains("  features are divided by their standard deviation ("));
}

TEST_CASE("mask says how much of its samples it keeps and lets through", "[cli][text]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  CHECK_THAT(
      text_of(dir, {"mask", "s.png", "--like", "0,0,8,10", "--unlike", "8,0,6,10", "-o", "m/"}),
      Contains("  keeps 100.00 % of 80 sample pixels, lets 0.00 % of 60 through\n"));
}

TEST_CASE("histogram says what was added up, and what was clipped for hues", "[cli][text]") {
  const TempDir dir;
  write_text_card(dir);
  write_stripes(dir / "s.png");
  text_of(dir, {"histogram", "card.png", "s.png", "--figures", "none", "-o", "h"});
  CHECK_THAT(text_of(dir, {"histogram", "--merge", "h/card.histogram.csv", "h/s.histogram.csv",
                           "-o", "all"}),
             Contains("2 tables added up: 38,600 pixels\n"));
  text_of(dir, {"convert", "s.png", "--to", "lab", "-o", "lab.tif"});
  write_picture(dir / "wide.tif", spec_of(2, 1, 3, SampleType::kF32),
                bytes_of(std::vector<float>{1.2f, 0, 0, 0.5f, 0.5f, 0.1f}));
  CHECK_THAT(text_of(dir, {"histogram", "wide.tif", "--channels", "hsv.s"}),
             Contains("  1 pixel outside sRGB, clipped to 0-255 for this\n"));
}

TEST_CASE("assess --show says where a figure cannot be worked out", "[cli][text]") {
  const TempDir dir;
  write_labels(dir / "map.png", 10, std::vector<std::uint8_t>(100, 1),
               {{1, "lead", "#303030"}, {2, "ruby", "#b0202a"}});
  std::vector<std::uint8_t> labels(100, 1);
  std::fill_n(labels.begin(), 9, std::uint8_t{2});
  write_labels(dir / "truth.png", 10, labels, {{1, "lead", "#303030"}, {2, "ruby", "#b0202a"}});
  CHECK_THAT(text_of(dir, {"assess", "map.png", "--reference", "truth.png", "--count", "100",
                           "--show", "1"}),
             Contains("  ruby: commission has no pixels to judge by\n"));
  CHECK_THAT(text_of(dir, {"assess", "map.png", "--reference", "map.png", "--count", "100",
                           "--show", "1"}),
             Contains("  chance alone explains all of it, so kappa cannot be said\n"));
}

TEST_CASE("assess prints the matrix, the classes, a comparison and a plan", "[cli][text]") {
  const TempDir dir;
  std::filesystem::copy(CHALCEDONY_DEMO_DATA, dir.path());
  const std::string text =
      text_of(dir, {"assess", "panel-a.reference.png", "--reference", "panel-a.reference.png",
                    "--versus", "panel-b.reference.png", "--plan", "5", "--model",
                    "glass.model.json", "--level", "90"});
  for (const char* part :
       {"panel-a.reference.png against panel-a.reference.png: 167,993 pixels assessed, drawn: all",
        "not counted: 4,807 pixels that trained the model",
        "rows: what the map says, columns: the reference", "mapped as", "producer's  100.0 %",
        "overall accuracy 100.0 %", "intervals at 90 %", "all pixels were taken",
        "to know it within +-5 %, draw 1 pixel at random, or 1 stratified by area",
        "panel-b.reference.png: overall accuracy", "only the second on 0", "McNemar's test"})
    CHECK_THAT(text, Contains(part));
  CHECK_THAT(text, !Contains("unclassified"));
}

TEST_CASE("the demo lists its commands without running them", "[cli][text]") {
  const TempDir dir;
  const std::string list = text_of(dir, {"demo", "--list"});
  for (const char* part :
       {"$ chalcedony inspect panel-a.png", "$ chalcedony histogram panel-a.png", "--peaks 5",
        "$ chalcedony mask panel-a.png --where \"hsv.h in 200..260 and hsv.s >= 40\"",
        "$ chalcedony assess results/panel-b.classes.png"})
    CHECK_THAT(list, Contains(part));
  CHECK(dir.files().empty());
}
