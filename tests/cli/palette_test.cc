// `palette` at the built program: main colors, all colors, repainting, comparing, and what it
// refuses.
#include <catch2/catch.hpp>
#include <cmath>
#include <nlohmann/json.hpp>
#include <set>

#include "core/color/ciede2000.h"
#include "core/color/css_color.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

double delta_e(const json& a, const json& b) {
  return ciede2000(css_color(a.get<std::string>()).in(spaces::kLab),
                   css_color(b.get<std::string>()).in(spaces::kLab));
}

}  // namespace

TEST_CASE("a palette of flat colors is those colors, in every file", "[cli][palette]") {
  const TempDir dir;
  write_stripes(dir / "Stripes 1.png");
  const json found =
      summary_of(run_tool(dir, {"palette", "Stripes 1.png", "-o", "out", "--summary", "json"}));
  const json& colors = found["inputs"][0]["colors"];
  REQUIRE(colors.size() == 4);
  CHECK(colors[0]["color"] == "#c81e28");
  CHECK(colors[0]["typical"] == "#c81e28");
  CHECK(colors[0]["percent"] == Approx(40));
  CHECK(colors[3]["pixels"] == 20);
  CHECK(colors[1]["spread"] < 0.01);
  CHECK(colors[2]["name"] == "white");
  CHECK(colors[3]["nearest_delta_e"].get<double>() ==
        Approx(delta_e(colors[3]["color"], colors[1]["color"])).margin(0.01));
  const json file = json::parse(text_of_file(dir / "out/Stripes 1.palette.json"));
  CHECK(file["chalcedony"] == "palette");
  CHECK(file["colors"] == colors);
  const auto lines = lines_of(dir / "out/Stripes 1.palette.csv");
  REQUIRE(lines.size() == 5);
  CHECK_THAT(lines[1], Catch::StartsWith("1,#c81e28,vivid red,80,40,"));
  const auto contrasts = lines_of(dir / "out/Stripes 1.contrasts.csv");
  REQUIRE(contrasts.size() == 5);
  CHECK(contrasts[0] == "index,color,black,white,1,2,3,4");
  CHECK(split(contrasts[1], ',')[4] == "1");
  CHECK(split(contrasts[1], ',')[5] == split(contrasts[2], ',')[4]);
  const std::string css = text_of_file(dir / "out/Stripes 1.palette.css");
  CHECK_THAT(css, Catch::Contains("--stripes-1-1: #c81e28; /* vivid red, 40.0 % */") &&
                      Catch::Contains("--stripes-1-3-text: #000000;"));
  const std::string svg = text_of_file(dir / "out/Stripes 1.palette.svg");
  CHECK_THAT(svg,
             Catch::Contains("<rect x=\"0\" width=\"480\" height=\"200\" fill=\"#c81e28\"/>") &&
                 Catch::Contains("<title>vivid blue, #1e3cb4, 30.0 %</title>"));
  const auto strip = bytes_in(dir / "out/Stripes 1.palette.png");
  REQUIRE(strip.size() == 1200 * 200 * 3);
  CHECK(std::vector<int>(strip.begin() + 3 * 479, strip.begin() + 3 * 481) ==
        std::vector<int>{200, 30, 40, 30, 60, 180});
  CHECK(std::filesystem::exists(dir / "out/Stripes 1.palette.figure.png"));
}

TEST_CASE("no two main colors are closer than asked", "[cli][palette]") {
  const TempDir dir;
  copy_demo(dir, "panel-b.png");
  for (const char* apart : {"8", "15", "30"}) {
    const json found = summary_of(run_tool(
        dir, {"palette", "panel-b.png", "--colors", "24", "--apart", apart, "--summary", "json"}));
    const json& colors = found["inputs"][0]["colors"];
    REQUIRE(colors.size() > 2);
    double share = 0;
    for (const json& a : colors) {
      share += a["percent"].get<double>();
      // Files hold rounded colors.
      for (const json& b : colors)
        if (a["index"] != b["index"])
          CHECK(delta_e(a["color"], b["color"]) > std::stod(apart) - 0.5);
    }
    CHECK(share == Approx(100));
  }
  const json all = summary_of(run_tool(
      dir, {"palette", "panel-b.png", "--colors", "24", "--apart", "0", "--summary", "json"}));
  CHECK(all["inputs"][0]["colors"].size() == 24);
}

TEST_CASE("every color is listed, up to 256", "[cli][palette]") {
  const TempDir dir;
  copy_demo(dir, "panel-a.reference.png");
  const json found = summary_of(
      run_tool(dir, {"palette", "panel-a.reference.png", "--unique", "--summary", "json"}));
  CHECK(found["inputs"][0]["colors"].size() == 6);
  std::vector<std::uint8_t> ramp;
  for (int i = 0; i < 257; ++i)
    ramp.insert(ramp.end(), {static_cast<std::uint8_t>(i), static_cast<std::uint8_t>(i / 256), 7});
  write_rgb(dir / "256.png", 256, 1, {ramp.begin(), ramp.begin() + 3 * 256});
  write_rgb(dir / "257.png", 257, 1, ramp);
  const json most =
      summary_of(run_tool(dir, {"palette", "256.png", "--unique", "--summary", "json"}));
  CHECK(most["inputs"][0]["colors"].size() == 256);
  check_error(run_tool(dir, {"palette", "257.png", "--unique", "-o", "out"}), 1,
              "257.png: has more than 256 colors; leave --unique out");
  CHECK(dir.files().count("out/257.palette.json") == 0);
}

TEST_CASE("pictures are repainted with the nearest colors", "[cli][palette]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  run_tool(dir, {"palette", "stripes.png", "-o", "out", "--figures", "none"});
  const json same =
      summary_of(run_tool(dir, {"palette", "stripes.png", "--apply", "out/stripes.palette.json",
                                "-o", "same", "--summary", "json"}))["inputs"][0];
  CHECK(bytes_in(dir / "same/stripes.repainted.png") == bytes_in(dir / "stripes.png"));
  CHECK(same["mean_delta_e"].get<double>() < 0.01);
  CHECK(same["used"][0]["pixels"] == 80);
  CHECK(std::filesystem::exists(dir / "same/stripes.repainted.figure.png"));

  // A gray that is not in the palette, and a transparent pixel.
  PictureSpec spec = spec_of(3, 1, 4);
  write_picture(
      dir / "dots.png", spec,
      bytes_of(std::vector<std::uint8_t>{250, 250, 250, 255, 9, 9, 9, 0, 30, 30, 30, 255}));
  std::ofstream(dir / "two.txt") << "#000000\n#ffffff\n";
  for (const char* distance : {"ciede2000", "oklab"}) {
    const json two =
        summary_of(run_tool(dir, {"palette", "dots.png", "--apply", "two.txt", "--distance",
                                  distance, "-o", "two", "--summary", "json"}))["inputs"][0];
    CHECK(two["counted"] == 2);
    CHECK(bytes_in(dir / "two/dots.repainted.png") ==
          std::vector<std::uint8_t>{255, 255, 255, 255, 0, 0, 0, 0, 0, 0, 0, 255});
    const double light = delta_e("#fafafa", "#ffffff"), dark = delta_e("#1e1e1e", "#000000");
    CHECK(two["mean_delta_e"].get<double>() == Approx((light + dark) / 2).epsilon(1e-3));
    CHECK(two["percentile_95_delta_e"].get<double>() ==
          Approx(std::max(light, dark)).margin(0.011));
  }
}

TEST_CASE("a picture of few colors lends them as a palette", "[cli][palette]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  copy_demo(dir, "panel-c.png", "panel.png");
  std::ofstream(dir / "same.txt") << "#c81e28\n#1e3cb4\n#f0f0eb\n#141414\n";
  const auto repainted = [&](const char* palette, const char* out) {
    summary_of(run_tool(dir, {"palette", "panel.png", "--apply", palette, "--region", "0,0,90,70",
                              "-o", out, "--summary", "json"}));
    return bytes_in(dir / out / "panel.repainted.png");
  };
  const auto by_picture = repainted("stripes.png", "by-picture");
  CHECK(by_picture == repainted("same.txt", "by-text"));
  // What --region leaves out of the panel does not leave colors out of the palette.
  CHECK(std::count(by_picture.begin(), by_picture.end(), 0xeb) > 100);
}

TEST_CASE("a large picture is repainted as a small one is", "[cli][palette]") {
  const TempDir dir;
  const auto small = random_bytes(3 * 1000 * 20);
  std::vector<std::uint8_t> large;
  for (int k = 0; k < 30; ++k) large.insert(large.end(), small.begin(), small.end());
  write_rgb(dir / "small.png", 1000, 20, small);
  write_rgb(dir / "large.png", 1000, 600, large);
  std::ofstream(dir / "four.txt") << "#000000\n#ffffff\n#c04030\n#3060a0\n";
  const auto repainted = [&](const std::string& name, const char* threads) {
    return summary_of(run_tool(dir, {"palette", name, "--apply", "four.txt", "-o", "out",
                                     "--threads", threads, "--summary", "json"}))["inputs"][0];
  };
  const json one = repainted("small.png", "1"), many = repainted("large.png", "1");
  CHECK(many["mean_delta_e"].get<double>() == Approx(one["mean_delta_e"].get<double>()));
  CHECK(many["percentile_95_delta_e"] == one["percentile_95_delta_e"]);
  const auto rows = bytes_in(dir / "out/small.repainted.png");
  const auto all = bytes_in(dir / "out/large.repainted.png");
  REQUIRE(all.size() == 30 * rows.size());
  for (std::size_t k = 0; k < 30; ++k)
    CHECK(std::equal(rows.begin(), rows.end(),
                     all.begin() + static_cast<std::ptrdiff_t>(k * rows.size())));
  CHECK(repainted("large.png", "3") == many);
  CHECK(bytes_in(dir / "out/large.repainted.png") == all);
}

TEST_CASE("dithering keeps the light of an area, with any number of threads", "[cli][palette]") {
  const TempDir dir;
  // Half of the light of white: 188 in sRGB.
  write_rgb(dir / "gray.png", 300, 400, std::vector<std::uint8_t>(3 * 300 * 400, 188));
  std::ofstream(dir / "two.txt") << "#000000\n#ffffff\n";
  const json plain =
      summary_of(run_tool(dir, {"palette", "gray.png", "--apply", "two.txt", "--summary", "json"}));
  CHECK(plain["inputs"][0]["used"][1]["percent"] == 100.0);
  for (const char* threads : {"1", "4"}) {
    const json mixed = summary_of(
        run_tool(dir, {"palette", "gray.png", "--apply", "two.txt", "--dither", "--threads",
                       threads, "-o", threads, "--figures", "none", "--summary", "json"}));
    CHECK(mixed["inputs"][0]["used"][1]["percent"].get<double>() == Approx(50.3).margin(0.5));
  }
  CHECK(text_of_file(dir / "1/gray.repainted.png") == text_of_file(dir / "4/gray.repainted.png"));
}

TEST_CASE("two palettes are compared by what has to move", "[cli][palette]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 4, 1, {255, 0, 0, 255, 0, 0, 0, 0, 255, 0, 0, 255});
  write_rgb(dir / "b.png", 4, 1, {255, 0, 0, 0, 0, 255, 0, 0, 255, 0, 0, 255});
  const json found = summary_of(
      run_tool(dir, {"palette", "a.png", "b.png", "--compare", "-o", "out", "--summary", "json"}));
  const double far = delta_e("#ff0000", "#0000ff");
  CHECK(found["comparison"]["distance"].get<double>() == Approx(far / 4).epsilon(1e-4));
  CHECK(found["comparison"]["moves"].size() == 3);
  const auto lines = lines_of(dir / "out/palettes.matching.csv");
  REQUIRE(lines.size() == 4);
  CHECK(lines[0] == "from,from_color,to,to_color,share_percent,delta_e");
  CHECK(std::filesystem::exists(dir / "out/palettes.figure.png"));
  const json same =
      summary_of(run_tool(dir, {"palette", "a.png", "a.png", "--compare", "--summary", "json"}));
  CHECK(same["comparison"]["distance"].get<double>() == Approx(0).margin(1e-9));
}

TEST_CASE("deep pictures have palettes too, and one pixel is enough", "[cli][palette]") {
  const TempDir dir;
  std::vector<float> values;
  for (int i = 0; i < 40; ++i) values.insert(values.end(), {i < 30 ? 0.8f : 0.2f, 0.2f, 0.2f});
  write_picture(dir / "deep.tif", spec_of(40, 1, 3, SampleType::kF32), bytes_of(values));
  const json deep =
      summary_of(run_tool(dir, {"palette", "deep.tif", "--summary", "json"}))["inputs"][0];
  REQUIRE(deep["colors"].size() == 2);
  CHECK(deep["colors"][0]["color"] == "#cc3333");
  CHECK(deep["colors"][0]["percent"] == Approx(75));
  write_rgb(dir / "one.png", 1, 1, {1, 2, 3});
  const json one =
      summary_of(run_tool(dir, {"palette", "one.png", "--summary", "json"}))["inputs"][0];
  REQUIRE(one["colors"].size() == 1);
  CHECK_FALSE(one["colors"][0].contains("nearest"));
}

TEST_CASE("palette says which colors look alike to whom", "[cli][palette]") {
  const TempDir dir;
  // A green, a brown and a blue, side by side.
  std::vector<std::uint8_t> rgb;
  for (int i = 0; i < 30; ++i)
    for (const int v : i % 3 == 0   ? std::array{0x1b, 0x75, 0x41}
                       : i % 3 == 1 ? std::array{0x7d, 0x58, 0x49}
                                    : std::array{0x1e, 0x3c, 0xb4})
      rgb.push_back(static_cast<std::uint8_t>(v));
  write_picture(dir / "three.png", spec_of(30, 1, 3), bytes_of(rgb));
  const auto run = run_tool(dir, {"palette", "three.png", "-o", "out", "--figures", "none"});
  CHECK_THAT(run.out, Catch::Contains("look alike without green cones (deuteranopia): 1."));
  const json found =
      summary_of(run_tool(dir, {"palette", "three.png", "--unique", "--summary", "json"}));
  const json& vision = found["inputs"][0]["vision"];
  CHECK(vision["alike_pairs"] == 1);
  REQUIRE(vision["alike"].size() == 1);
  CHECK(vision["alike"][0]["vision"] == "deuteranopia");
  CHECK(vision["closest"].size() == 3);
  CHECK(vision["closest"][1] == vision["alike"][0]);
  const auto lines = lines_of(dir / "out/three.differences.csv");
  REQUIRE(lines.size() == 4);
  CHECK(lines[0] ==
        "first,first_color,second,second_color,delta_e,protanopia_delta_e,deuteranopia_delta_e,"
        "tritanopia_delta_e");
  std::size_t alike = 0;
  for (std::size_t i = 1; i < lines.size(); ++i) {
    const auto fields = split(lines[i], ',');
    CHECK(std::stod(fields[4]) == Approx(delta_e(json(fields[1]), json(fields[3]))).margin(1e-3));
    alike += std::stod(fields[6]) < 8 ? 1 : 0;
  }
  CHECK(alike == 1);
  // One color has no other to be taken for.
  write_picture(dir / "one.png", spec_of(1, 1, 3), bytes_of(std::vector<std::uint8_t>{9, 80, 200}));
  CHECK_THAT(run_tool(dir, {"palette", "one.png"}).out, !Catch::Contains("closest"));
}

TEST_CASE("a gray of a palette has no hue", "[cli][palette]") {
  const TempDir dir;
  write_rgb(dir / "p.png", 3, 1, {120, 120, 120, 120, 120, 120, 200, 40, 30});
  const json done = summary_of(run_tool(dir, {"palette", "p.png", "--unique", "--figures", "none",
                                              "-o", "out", "--summary", "json"}));
  const json& colors = done["inputs"][0]["colors"];
  CHECK(colors[0]["hue"].is_null());
  CHECK(colors[1]["hue"].get<double>() == Approx(37).margin(3));
  const auto rows = rows_of(dir / "out/p.palette.csv");
  CHECK(rows[0].at("hue").empty());
  CHECK(std::stod(rows[1].at("hue")) == Approx(colors[1]["hue"].get<double>()));
  CHECK(run_tool(dir, {"palette", "p.png", "--unique"}).exit_code == 0);
}

TEST_CASE("palette refuses what means nothing, and leaves nothing", "[cli][palette]") {
  const TempDir dir;
  write_stripes(dir / "a.png");
  std::ofstream(dir / "words.txt") << "reddish\n";
  check_error(run_tool(dir, {"palette", "a.png", "--unique", "--colors", "3"}), 2,
              "--colors means nothing here: --unique takes every color");
  check_error(run_tool(dir, {"palette", "a.png", "--dither"}), 2,
              "--dither means nothing here: it is for --apply");
  check_error(run_tool(dir, {"palette", "a.png", "--compare"}), 2,
              "--compare takes two pictures, not 1");
  check_error(run_tool(dir, {"palette", "a.png", "--colors", "65"}), 2, "--colors");
  check_error(run_tool(dir, {"palette", "a.png", "--apart", "near"}), 2, "--apart");
  check_error(run_tool(dir, {"palette", "a.png", "--apply", "words.txt", "-o", "out"}), 1,
              "words.txt: is not a palette: 'reddish' is not a color");
  std::ofstream(dir / "bytes.txt") << std::string("\x89\0\1", 3);
  check_error(run_tool(dir, {"palette", "a.png", "--apply", "bytes.txt", "-o", "out"}), 1,
              "bytes.txt: is not a palette, nor any text; give a palette.json");
  copy_demo(dir, "panel-c.png", "panel.png");
  check_error(run_tool(dir, {"palette", "a.png", "--apply", "panel.png", "-o", "out"}), 1,
              "panel.png: has more than 255 colors; make its palette first, with 'chalcedony "
              "palette'");
  check_error(run_tool(dir, {"palette", "a.png", "--apply", "none.json", "-o", "out"}), 1,
              "none.json: no such file");
  write_picture(dir / "black.png", spec_of(20, 10, 1), std::vector<std::byte>(200));
  check_error(run_tool(dir, {"palette", "a.png", "--within", "black.png", "-o", "out"}), 1,
              "no pixel");
  check_nothing_in(dir, "out");
}
