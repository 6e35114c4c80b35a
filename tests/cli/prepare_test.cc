// `sheet`, `reframe`, `smooth`, `split` and `join` at the built program: what they write, and what
// they refuse.
#include <algorithm>
#include <catch2/catch.hpp>
#include <map>
#include <nlohmann/json.hpp>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

const std::vector<LegendEntry> kTwo{{1, "ruby", "#9b1b30"}, {2, "lead", "#2b2b2b"}};

/// 4 x 2: red, green, blue, white above; black, gray, yellow, cyan below.
void write_eight(const std::filesystem::path& path) {
  write_rgb(path, 4, 2, {255, 0, 0, 0,   255, 0,   0,   0,   255, 255, 255, 255,
                         0,   0, 0, 128, 128, 128, 255, 255, 0,   0,   255, 255});
}

}  // namespace

TEST_CASE("reframe crops, turns by quarters and scales in this order", "[cli][reframe]") {
  const TempDir dir;
  write_eight(dir / "e.png");
  const json found = summary_of(run_tool(dir, {"reframe", "e.png", "--crop", "0,0,2,2", "--turn",
                                               "90", "-o", "q.png", "--summary", "json"}));
  CHECK(found["inputs"][0]["width"] == 2);
  CHECK(bytes_in(dir / "q.png") ==
        std::vector<std::uint8_t>{0, 0, 0, 255, 0, 0, 128, 128, 128, 0, 255, 0});
  summary_of(
      run_tool(dir, {"reframe", "e.png", "--turn", "-90", "-o", "l.png", "--summary", "json"}));
  const auto left = bytes_in(dir / "l.png");
  CHECK(std::vector<std::uint8_t>(left.begin(), left.begin() + 6) ==
        std::vector<std::uint8_t>{255, 255, 255, 0, 255, 255});
  const json half = summary_of(
      run_tool(dir, {"reframe", "e.png", "--size", "x1", "-o", "h.png", "--summary", "json"}));
  CHECK(half["inputs"][0]["width"] == 2);
  CHECK(half["inputs"][0]["height"] == 1);
  CHECK(bytes_in(dir / "h.png") == std::vector<std::uint8_t>{96, 96, 32, 128, 191, 191});
  const json many = summary_of(run_tool(
      dir, {"reframe", "e.png", "q.png", "--scale", "2", "-o", "big", "--summary", "json"}));
  CHECK(many["outputs"] == json{"big/e.reframed.png", "big/q.reframed.png"});
}

TEST_CASE("reframe averages numbers or light, and enlarges in two ways", "[cli][reframe]") {
  const TempDir dir;
  std::vector<std::uint8_t> checks;
  for (int y = 0; y < 8; ++y)
    for (int x = 0; x < 8; ++x)
      checks.insert(checks.end(), 3, static_cast<std::uint8_t>((x + y) % 2 ? 255 : 0));
  write_rgb(dir / "c.png", 8, 8, checks);
  CHECK(run_tool(dir, words_of("reframe c.png --scale 0.5 -o n.png")).exit_code == 0);
  CHECK(bytes_in(dir / "n.png") == std::vector<std::uint8_t>(48, 128));
  CHECK(run_tool(dir, words_of("reframe c.png --scale 0.5 --linear-light -o l.png")).exit_code ==
        0);
  CHECK(bytes_in(dir / "l.png") == std::vector<std::uint8_t>(48, 188));  // half the light

  // A step from 50 to 200: both ways keep it far from it, and overshoot beside it, lanczos further.
  std::vector<std::uint8_t> step;
  for (int i = 0; i < 16; ++i)
    step.insert(step.end(), 3, static_cast<std::uint8_t>(i < 8 ? 50 : 200));
  write_rgb(dir / "s.png", 16, 1, step);
  std::map<std::string, std::vector<std::uint8_t>> larger;
  for (const char* const way : {"bicubic", "lanczos"}) {
    CHECK(run_tool(dir, {"reframe", "s.png", "--size", "64x1", "--enlarge", way, "-o", "e.png"})
              .exit_code == 0);
    larger[way] = bytes_in(dir / "e.png");
    REQUIRE(larger[way].size() == 192);
    CHECK(larger[way].front() == 50);
    CHECK(larger[way].back() == 200);
    const auto [least, most] = std::minmax_element(larger[way].begin(), larger[way].end());
    CHECK(int{*least} < 45);
    CHECK(int{*most} > 205);
  }
  CHECK(larger["bicubic"] != larger["lanczos"]);
  check_error(run_tool(dir, words_of("reframe s.png --scale 2 --enlarge nearest -o x.png")), 2,
              "--enlarge: 'nearest' is not known");
}

TEST_CASE("reframe keeps the numbers of masks and class maps", "[cli][reframe]") {
  const TempDir dir;
  write_labels(dir / "map.png", 4, {1, 2, 1, 0, 2, 2, 0, 0}, kTwo);
  write_labels(dir / "mask.png", 2, {255, 0, 0, 255});
  const json found = summary_of(run_tool(
      dir, {"reframe", "map.png", "mask.png", "--scale", "1.5", "-o", "out", "--summary", "json"}));
  CHECK(found["inputs"][0]["labels"] == true);
  CHECK(found["inputs"][1]["labels"] == true);
  CHECK(labels_in(dir / "out/map.reframed.png") ==
        std::vector<std::uint8_t>{1, 2, 2, 1, 0, 0, 2, 2, 2, 0, 0, 0, 2, 2, 2, 0, 0, 0});
  CHECK(open_picture(dir / "out/map.reframed.png", {}).facts.legend == kTwo);
  CHECK(labels_in(dir / "out/mask.reframed.png") ==
        std::vector<std::uint8_t>{255, 0, 0, 0, 255, 255, 0, 255, 255});
  check_error(run_tool(dir, {"reframe", "map.png", "--scale", "2", "-o", "map.jpg"}), 2,
              "a JPEG would change the labels");
  CHECK_FALSE(std::filesystem::exists(dir / "map.jpg"));
}

TEST_CASE("what lies beside a turned picture does not count", "[cli][reframe]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  summary_of(
      run_tool(dir, {"reframe", "s.png", "--turn", "30", "-o", "t.png", "--summary", "json"}));
  const json seen = summary_of(run_tool(dir, {"inspect", "t.png", "--summary", "json"}));
  CHECK(seen["inputs"][0]["alpha"] == "used");
  CHECK(seen["inputs"][0]["excluded"]["transparent"] > 100);
  summary_of(run_tool(dir, {"reframe", "s.png", "--turn", "30", "--fill", "#00ff00", "-o", "f.jpg",
                            "--summary", "json"}));
  check_error(
      run_tool(dir, {"reframe", "s.png", "--turn", "30", "-o", "n.jpg"}), 2,
      "n.jpg: what lies beside the picture is transparent, and a JPEG holds no alpha; give its "
      "color with --fill, or write a .png");
  CHECK_FALSE(std::filesystem::exists(dir / "n.jpg"));
}

TEST_CASE("what was seen at a slant is made upright, its labels too", "[cli][reframe]") {
  const TempDir dir;
  // Dark to the left of a slanted line from 2,0 to 6,8 and light to its right.
  std::vector<std::uint8_t> rgb, labels;
  for (int y = 0; y < 8; ++y)
    for (int x = 0; x < 10; ++x) {
      const bool dark = x + 0.5 < 2 + (y + 0.5) / 2;
      for (int c = 0; c < 3; ++c) rgb.push_back(dark ? 20 : 220);
      labels.push_back(dark ? 1 : 2);
    }
  write_rgb(dir / "s.png", 10, 8, rgb);
  write_labels(dir / "map.png", 10, labels, kTwo);
  const std::vector<std::string> corners{"--corners", "0,0 4,0 8,8 4,8", "--size", "4x8"};
  const json told = summary_of(run_tool(
      dir, with({"reframe", "s.png", "map.png", "-o", "out/", "--summary", "json"}, corners)));
  CHECK(told["inputs"][0]["width"] == 4);
  CHECK(told["inputs"][1]["labels"] == true);
  std::vector<std::uint8_t> upright;
  for (int y = 0; y < 8; ++y) upright.insert(upright.end(), {1, 1, 2, 2});
  CHECK(labels_in(dir / "out/map.reframed.png") == upright);
  const PictureFile picture = open_picture(dir / "out/s.reframed.png", {});
  CHECK(picture.info.alpha == AlphaKind::kNone);
  const std::vector<std::uint8_t> samples = bytes_in(dir / "out/s.reframed.png");
  for (std::size_t y = 0; y < 8; ++y) {
    CHECK(samples[(y * 4) * 3] < 60);
    CHECK(samples[(y * 4 + 3) * 3] > 180);
  }
  // What lies beside the picture has no color in a JPEG.
  check_error(run_tool(dir, {"reframe", "s.png", "--corners", "-3,0 4,0 8,8 4,8", "-o", "x.jpg"}),
              2, "x.jpg: what lies beside the picture is transparent");
  CHECK_FALSE(std::filesystem::exists(dir / "x.jpg"));
  REQUIRE(run_tool(dir, {"reframe", "s.png", "--corners", "-3,0 4,0 8,8 4,8", "--fill", "#ffffff",
                         "-o", "x.jpg"})
              .exit_code == 0);
}

TEST_CASE("reframe says what it cannot do", "[cli][reframe]") {
  const TempDir dir;
  write_eight(dir / "e.png");
  const std::vector<std::pair<std::vector<std::string>, std::string>> wrong{
      {{"-o", "x.png"}, "reframe needs --corners, --crop, --turn, --scale or --size"},
      {{"--scale", "2"}, "reframe needs -o"},
      {{"--scale", "2", "--size", "4x", "-o", "x.png"}, "--scale and --size both say how large"},
      {{"--size", "big", "-o", "x.png"}, "'big' is no size"},
      {{"--turn", "north", "-o", "x.png"}, "'north' is no angle"},
      {{"--corners", "0,0 9,0 9,9", "-o", "x.png"},
       "--corners: '0,0 9,0 9,9' is not four corners; write them as in"},
      {{"--corners", "0,0 0,9 9,9 9,0", "-o", "x.png"},
       "--corners: these corners do not go round clockwise, each of them outward; give top left, "
       "top right, bottom right and bottom left"},
      {{"--corners", "0,0 9,0 9,9 0,9", "--turn", "3", "-o", "x.png"},
       "--corners says what is kept and how it lies; leave --crop and --turn out"},
      {{"--scale", "2", "-o", "x.bmp"}, "'.bmp' is no picture format"},
      {{"--scale", "2", "--region", "0,0,1,1", "-o", "x.png"}, "--crop keeps a part of them"}};
  for (const auto& [options, says] : wrong) {
    check_error(run_tool(dir, with({"reframe", "e.png"}, options)), 2, says);
  }
  check_error(run_tool(dir, {"reframe", "e.png", "--crop", "3,0,2,2", "-o", "x.png"}), 1, "e.png");
  summary_of(
      run_tool(dir, {"convert", "e.png", "--to", "hsv", "-o", "hsv.tif", "--summary", "json"}));
  check_error(run_tool(dir, {"reframe", "hsv.tif", "--scale", "0.5", "-o", "x.tif"}), 1,
              "the mean of two hues is not the hue between them");
  CHECK(dir.files() == std::set<std::string>{"e.png", "hsv.tif"});
}

TEST_CASE("smooth filters what counts and leaves the rest", "[cli][smooth]") {
  const TempDir dir;
  // A bright speck in a dark picture: opening and median take it away, closing keeps it.
  std::vector<std::uint8_t> rgb(9 * 9 * 3, 40);
  for (std::size_t c = 0; c < 3; ++c) rgb[(4 * 9 + 4) * 3 + c] = 250;
  write_rgb(dir / "speck.png", 9, 9, rgb);
  const auto smoothed = [&](const std::vector<std::string>& options) {
    summary_of(run_tool(
        dir, with({"smooth", "speck.png", "-o", "out.png", "--summary", "json"}, options)));
    return bytes_in(dir / "out.png");
  };
  const std::vector<std::uint8_t> even(9 * 9 * 3, 40);
  CHECK(smoothed({"--filter", "median", "--radius", "1"}) == even);
  CHECK(smoothed({"--filter", "opening", "--radius", "1"}) == even);
  CHECK(smoothed({"--filter", "closing", "--radius", "1"}) == rgb);
  CHECK(smoothed({"--filter", "mean", "--radius", "1", "--window", "box"})[(4 * 9 + 4) * 3] == 63);
  CHECK(smoothed({"--filter", "maximum", "--radius", "1"})[(4 * 9 + 3) * 3] == 250);
  CHECK(smoothed({"--filter", "median", "--radius", "1", "--region", "0,0,3,3"}) == rgb);
  CHECK(smoothed({"--filter", "median", "--radius", "1", "--threads", "1"}) ==
        smoothed({"--filter", "median", "--radius", "1", "--threads", "4"}));
}

TEST_CASE("smooth says what it cannot do", "[cli][smooth]") {
  const TempDir dir;
  write_eight(dir / "e.png");
  write_labels(dir / "map.png", 2, {1, 2, 0, 1}, kTwo);
  write_labels(dir / "mask.png", 2, {255, 0, 0, 255});
  for (const std::string name : {"map.png", "mask.png"}) {
    const auto run =
        run_tool(dir, {"smooth", name, "--filter", "mean", "--radius", "1", "-o", "x.png"});
    check_error(run, 1, "is a mask or a class map");
    CHECK_THAT(run.err, Catch::Contains("tidy"));
  }
  check_error(run_tool(dir, {"convert", "map.png", "--to", "lab", "-o", "x.tif"}), 1,
              "is a mask or a class map");
  const std::vector<std::pair<std::vector<std::string>, std::string>> wrong{
      {{"--radius", "1", "-o", "x.png"}, "smooth needs --filter"},
      {{"--filter", "mean", "-o", "x.png"}, "smooth needs --radius"},
      {{"--filter", "mode", "--radius", "1", "-o", "x.png"}, "--filter"},
      {{"--filter", "mean", "--radius", "0", "-o", "x.png"}, "--radius"},
      {{"--filter", "gaussian", "--radius", "1", "--window", "box", "-o", "x.png"},
       "--window means nothing for a Gaussian"},
      {{"--filter", "mean", "--radius", "1"}, "smooth needs -o"}};
  for (const auto& [options, says] : wrong) {
    check_error(run_tool(dir, with({"smooth", "e.png"}, options)), 2, says);
  }
  CHECK(dir.files() == std::set<std::string>{"e.png", "map.png", "mask.png"});
}

TEST_CASE("split writes each plane and join puts them together again", "[cli][split]") {
  const TempDir dir;
  write_eight(dir / "e.png");
  const json planes =
      summary_of(run_tool(dir, {"split", "e.png", "-o", "rgb", "--summary", "json"}));
  CHECK(planes["inputs"][0]["planes"][1]["plane"] == "srgb.g");
  PictureFile green = open_picture(dir / "rgb/e.srgb.g.png", {});
  CHECK(green.facts.plane == Channel{&spaces::kSrgb, 1});
  CHECK(samples_of<std::uint8_t>(green) ==
        std::vector<std::uint8_t>{0, 255, 0, 255, 0, 128, 255, 255});
  summary_of(run_tool(dir, {"join", "rgb/e.srgb.r.png", "rgb/e.srgb.g.png", "rgb/e.srgb.b.png",
                            "-o", "again.png", "--summary", "json"}));
  CHECK(bytes_in(dir / "again.png") == bytes_in(dir / "e.png"));

  // Another space, 16 bits and floats: converted back, every code is the same.
  for (const std::string depth : {"16", "float"}) {
    summary_of(run_tool(dir, {"split", "e.png", "--channels", "hsv", "--depth", depth, "-o", "hsv",
                              "--summary", "json"}));
    const std::string end = depth == "16" ? ".png" : ".tif";
    summary_of(run_tool(dir, {"join", "hsv/e.hsv.h" + end, "hsv/e.hsv.s" + end, "hsv/e.hsv.v" + end,
                              "--space", "hsv", "-o", "hsv" + end, "--summary", "json"}));
    summary_of(run_tool(dir, {"convert", "hsv" + end, "--to", "srgb", "--depth", "8", "-o",
                              "back.png", "--summary", "json"}));
    CHECK(bytes_in(dir / "back.png") == bytes_in(dir / "e.png"));
  }
  PictureFile hue = open_picture(dir / "hsv/e.hsv.h.tif", {});
  CHECK(samples_of<float>(hue) == std::vector<float>{0, 120, 240, 0, 0, 0, 60, 180});
}

TEST_CASE("join silences, exchanges and replaces planes", "[cli][join]") {
  const TempDir dir;
  write_eight(dir / "e.png");
  write_labels(dir / "mask.png", 4, {255, 0, 0, 0, 0, 0, 0, 255});
  summary_of(run_tool(dir, {"join", "e.png", "--plane", "r=0", "--plane", "srgb.g=e.png:srgb.b",
                            "--plane", "b=100.4", "-o", "o.png", "--summary", "json"}));
  const auto out = bytes_in(dir / "o.png");
  CHECK(std::vector<std::uint8_t>(out.begin() + 6, out.begin() + 12) ==
        std::vector<std::uint8_t>{0, 255, 100, 0, 255, 100});
  const json cut = summary_of(run_tool(
      dir, {"join", "e.png", "--plane", "alpha=mask.png", "-o", "cut.png", "--summary", "json"}));
  CHECK(cut["inputs"][0]["alpha"] == true);
  PictureFile file = open_picture(dir / "cut.png", {});
  const auto samples = samples_of<std::uint8_t>(file);
  CHECK(samples[3] == 255);
  CHECK(samples[7] == 0);
  CHECK(samples[4] == 0);  // the color stays
  CHECK(samples[5] == 255);
  summary_of(run_tool(
      dir, {"join", "cut.png", "--alpha", "drop", "-o", "whole.png", "--summary", "json"}));
  CHECK(bytes_in(dir / "whole.png") == bytes_in(dir / "e.png"));
  summary_of(run_tool(
      dir, {"join", "cut.png", "--plane", "alpha=50", "-o", "half.png", "--summary", "json"}));
  PictureFile half = open_picture(dir / "half.png", {});
  CHECK(samples_of<std::uint8_t>(half)[3] == 128);
  // A lightness of 0-100 fills a plane of 0-255 from black to white.
  summary_of(run_tool(
      dir, {"join", "e.png", "--plane", "r=e.png:lab.l", "-o", "l.png", "--summary", "json"}));
  CHECK(bytes_in(dir / "l.png")[9] == 255);
}

TEST_CASE("join and split say what they cannot do", "[cli][join]") {
  const TempDir dir;
  write_eight(dir / "e.png");
  write_labels(dir / "small.png", 2, {255, 0, 0, 255});
  write_labels(dir / "map.png", 2, {1, 2, 0, 1}, kTwo);
  const std::vector<std::pair<std::vector<std::string>, std::string>> wrong{
      {{"join", "e.png", "--plane", "r=0"}, "join needs -o"},
      {{"join", "e.png", "small.png", "-o", "x.png"},
       "join takes one picture, or the 3 planes of srgb in order; give 3"},
      {{"join", "e.png", "--plane", "q=0", "-o", "x.png"}, "'q' is no plane of srgb"},
      {{"join", "e.png", "--plane", "r=0", "--plane", "r=1", "-o", "x.png"}, "r is given twice"},
      {{"join", "1", "2", "3", "-o", "x.png"}, "every plane is a number"},
      {{"join", "e.png", "--plane", "r=nofile:lab.q", "-o", "x.png"}, "lab.q"},
      {{"split", "e.png"}, "split needs -o"},
      {{"split", "e.png", "--channels", "hsv.q", "-o", "x"}, "--channels"},
      {{"sheet", "e.png"}, "sheet needs -o"}};
  for (const auto& [arguments, says] : wrong) check_error(run_tool(dir, arguments), 2, says);
  check_error(run_tool(dir, {"join", "e.png", "--plane", "r=small.png", "-o", "x.png"}), 1,
              "small.png: is 2x2, and e.png is 4x2");
  check_error(run_tool(dir, {"join", "e.png", "--plane", "r=e.png", "-o", "x.png"}), 1,
              "is not gray");
  check_error(run_tool(dir, {"join", "e.png", "--plane", "r=0", "-o", "e.png"}), 1, "is an input");
  check_error(run_tool(dir, {"split", "map.png", "-o", "x"}), 1, "is a mask or a class map");
  // A damaged file among several that are read together is named.
  copy_demo(dir, "panel-a.png");
  put_text(dir / "cut.png", text_of_file(dir / "panel-a.png").substr(0, 20000));
  check_error(run_tool(dir, {"join", "panel-a.png", "--plane", "r=cut.png:srgb.g", "-o", "x.png"}),
              1, "cut.png: damaged PNG");
  check_nothing_in(dir, "x");
  CHECK_FALSE(std::filesystem::exists(dir / "x.png"));
}

TEST_CASE("sheet draws a page and says what is black and white", "[cli][sheet]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  const json found = summary_of(run_tool(
      dir, {"sheet", "s.png", "--channels", "hsv,lab.a", "-o", "out", "--summary", "json"}));
  CHECK(found["outputs"] == json{"out/s.sheet.figure.png"});
  CHECK(found["inputs"][0]["planes"].size() == 4);
  CHECK(found["inputs"][0]["planes"][0]["white"] == 360);
  CHECK(found["inputs"][0]["planes"][3]["black"] == -125);
  const json stretched = summary_of(run_tool(
      dir, {"sheet", "s.png", "--stretch-view", "--tint", "-o", "out", "--summary", "json"}));
  CHECK(stretched["inputs"][0]["planes"][0]["black"] == 20);
  CHECK(stretched["inputs"][0]["planes"][0]["white"] == 240);
  const PictureFile page = open_picture(dir / "out/s.sheet.figure.png", {});
  CHECK(page.info.shape.width == 1280);
}

TEST_CASE("sheets are drawn of any number of pictures", "[cli][sheet]") {
  const TempDir dir;
  std::filesystem::create_directory(dir / "many");
  for (int i = 0; i < 21; ++i)
    write_rgb(dir / ("many/" + std::to_string(i) + ".png"), 2, 1, {9, 90, 200, 30, 60, 90});
  const Outcome run =
      run_tool(dir, words_of("sheet many --channels gray --figures svg -o out --summary json"));
  CHECK(run.err.empty());
  CHECK(summary_of(run)["outputs"].size() == 21);
}

TEST_CASE("the page of a sheet is as high as its rows need", "[cli][sheet]") {
  const TempDir dir;
  write_stripes(dir / "s.png");  // twice as wide as high
  const auto height_of = [&](const char* channels) {
    summary_of(run_tool(
        dir, {"sheet", "s.png", "--channels", channels, "-o", "out", "--summary", "json"}));
    const PictureFile page = open_picture(dir / "out/s.sheet.figure.png", {});
    CHECK(page.info.shape.width == 1280);
    return page.info.shape.height;
  };
  // Two in a row, though one below the other would be a little larger: half the width less margins
  // and gap, and half of that high.
  CHECK(height_of("srgb.r") == Approx(104 + (1280 - 2 * 26 - 13) / 2 / 2.0 + 20).margin(1));
  for (const char* channels : {"hsv,lab", "hsv,lab,oklch,srgb,cmy,ycbcr,luv"}) {
    CHECK(height_of(channels) > 600);
    CHECK(height_of(channels) <= 800);
  }
}

TEST_CASE("a sheet leaves what does not count white, tinted or not", "[cli][sheet]") {
  const TempDir dir;
  write_rgb(dir / "r.png", 40, 30, std::vector<std::uint8_t>(40 * 30 * 3, 90));
  summary_of(run_tool(dir, {"sheet", "r.png", "--channels", "srgb.r", "--tint", "--region",
                            "0,0,4,3", "-o", "out", "--summary", "json"}));
  const auto page = bytes_in(dir / "out/r.sheet.figure.png");
  std::size_t red = 0;
  for (std::size_t i = 0; i < page.size(); i += 3) red += page[i] > page[i + 1] + 40;
  CHECK(red > 500);                // the hundredth part of the plane that counts
  CHECK(red < page.size() / 100);  // and nothing beside it
}
