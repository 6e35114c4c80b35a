// What is written in figures, of every command that draws some.
#include <catch2/catch.hpp>

#include "tests/support/svg_texts.h"
#include "tests/support/tool.h"

using namespace chalcedony::test;

namespace {

/// Runs commands with figures as SVG, in a folder that holds the demo panels, and looks at the
/// texts of all that they draw: at least so many figures.
void check_texts(const std::vector<std::string>& commands, std::size_t figures) {
  const TempDir dir;
  for (const char* name :
       {"panel-a.png", "panel-b.png", "panel-c.png", "panel-d.png", "panel-a.reference.png",
        "panel-b.reference.png", "panel-a.samples.geojson", "glass.palette.txt", "target.png",
        "target.samples.geojson", "target.known.csv"})
    copy_demo(dir, name);
  for (const std::string& command : commands) {
    const bool draws = !command.starts_with("reframe");
    const Outcome outcome =
        run_tool(dir, draws ? with(words_of(command), {"--figures", "svg"}) : words_of(command));
    INFO(command << "\n" << outcome.err);
    REQUIRE(outcome.exit_code == 0);
  }
  std::size_t drawn = 0;
  for (const std::string& file : dir.files()) {
    if (!file.ends_with(".svg")) continue;
    const std::string svg = text_of_file(dir / file);
    const std::vector<SvgText> texts = svg_texts(svg);
    if (texts.empty()) continue;  // swatches of a palette, which say nothing
    ++drawn;
    INFO(file);
    for (const SvgText& text : texts) CHECK(text.size >= 11);
    CHECK_THAT(overlapping_texts(texts), Catch::Equals(std::vector<std::string>{}));
    CHECK_THAT(texts_off_page(svg), Catch::Equals(std::vector<std::string>{}));
  }
  CHECK(drawn >= figures);
}

}  // namespace

TEST_CASE("texts of figures lie apart: histograms, selections, light", "[program][figure]") {
  check_texts(
      {"histogram panel-a.png --channels lab,hsv,ycbcr --peaks 6 --joint hsv.h,hsv.s --disc "
       "-o h1",
       "histogram panel-a.png panel-b.png panel-c.png panel-d.png --log -o h2",
       "mask panel-a.png --where \"hsv.h in {low}..260\" --vary low=180..220/5 -o m1",
       "mask panel-a.png --where \"hsv.h in 200..260\" -o m2",
       "slice panel-a.png --channel lab.l --cuts 10,20,40,60,80 -o slices",
       "measure panel-a.reference.png --image panel-a.png -o regions",
       "balance panel-d.png -o balanced.png",
       "correct target.png --samples target.samples.geojson --known target.known.csv -o right.png",
       "sheet panel-a.png --channels lab,hsv -o sheet",
       "diff panel-a.png panel-b.png -o difference"},
      16);
}

TEST_CASE("texts of figures lie apart: long names", "[program][figure]") {
  const std::string name = "2026-05-14_chapel_north-window_transmitted-light_exposure-";
  const std::string a = name + "1.png", b = name + "2.png", c = name + "3.png";
  const std::string all = a + " " + b + " " + c;
  check_texts({"reframe panel-a.png --scale 0.5 -o " + a, "reframe panel-b.png --scale 0.5 -o " + b,
               "reframe panel-c.png --scale 0.5 -o " + c, "similar " + all + " --to " + a + " -o s",
               "histogram " + all + " -o h", "diff " + a + " " + b + " -o d",
               "palette " + a + " " + b + " --compare -o p"},
              8);
}

TEST_CASE("texts of figures lie apart: high and flat pictures", "[program][figure]") {
  check_texts({"reframe panel-a.png --crop 200,0,60,360 -o tall.png",
               "reframe panel-a.png --crop 0,150,480,20 -o flat.png",
               "histogram tall.png --channels lab --peaks 4 -o t1",
               "histogram tall.png --joint hsv.h,hsv.s --peaks 4 --disc -o t2",
               "cluster tall.png --k 2..4 -o t3", "diff tall.png tall.png -o t4",
               "histogram flat.png --joint hsv.h,hsv.s --peaks 4 -o f1",
               "mask flat.png --where \"hsv.h in 200..260\" -o f2", "diff flat.png flat.png -o f3"},
              10);
}

TEST_CASE("texts of figures lie apart: groups and palettes", "[program][figure]") {
  check_texts(
      {"cluster panel-a.png --k 2..6 -o c1",
       "cluster panel-a.png --method gaussian-mixture --k 1..4 -o c2",
       "palette panel-a.png --colors 8 -o p1", "palette panel-a.png panel-c.png --compare -o p2",
       "palette panel-b.png --apply glass.palette.txt -o p3"},
      11);
}

TEST_CASE("texts of figures lie apart: classes", "[program][figure]") {
  check_texts(
      {"train panel-a.png --samples panel-a.samples.geojson --method maximum-likelihood -o t",
       "classify panel-b.png --model t/model.json -o c",
       "explain panel-a.png --model t/model.json --at 100,100 --at 50,60 -o e",
       "assess c/panel-b.classes.png --reference panel-b.reference.png --count 300 -o a"},
      8);
}
