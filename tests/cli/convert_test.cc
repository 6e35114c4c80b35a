// `convert` at the built program: gamut, dither and the order of channels.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <numeric>

#include "core/color/conversion.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

TEST_CASE("convert maps colors that r g b cannot show", "[cli][convert]") {
  const TempDir dir;
  // The green of rec2020 lies far outside sRGB.
  PictureSpec spec = spec_of(2, 1, 3, SampleType::kU16);
  spec.space = &spaces::kRec2020;
  write_picture(dir / "wide.png", spec,
                bytes_of(std::vector<std::uint16_t>{0, 65535, 0, 30000, 30000, 30000}));
  const auto converted = [&](const std::string& gamut) {
    const json found =
        summary_of(run_tool(dir, {"convert", "wide.png", "--to", "srgb", "--depth", "8", "--gamut",
                                  gamut, "-o", gamut + ".png", "--summary", "json"}));
    CHECK(found["inputs"][0]["gamut"] == gamut);
    CHECK(found["inputs"][0]["out_of_gamut_percent"] == 50);
    return bytes_in(dir / (gamut + ".png"));
  };
  const auto clip = converted("clip"), map = converted("map");
  CHECK(std::vector<std::uint8_t>(clip.begin(), clip.begin() + 3) ==
        std::vector<std::uint8_t>{0, 255, 0});
  // Clipping turns the hue toward yellow; mapping keeps it.
  const auto hue_of = [](const std::vector<std::uint8_t>& rgb) {
    return convert_color(spaces::kSrgb, spaces::kOklch,
                         {double(rgb[0]), double(rgb[1]), double(rgb[2])})[2];
  };
  const double wanted = convert_color(spaces::kRec2020, spaces::kOklch, {0, 255, 0})[2];
  CHECK(std::abs(hue_of(map) - wanted) < 3);
  CHECK(std::abs(hue_of(map) - wanted) < std::abs(hue_of(clip) - wanted));
  CHECK(std::equal(clip.begin() + 3, clip.end(), map.begin() + 3));
  const auto text = run_tool(dir, {"convert", "wide.png", "--to", "srgb", "--depth", "8", "--gamut",
                                   "map", "-o", "m.png"});
  CHECK_THAT(text.out, Catch::Contains("brought in with less chroma"));
}

TEST_CASE("convert maps the colors of a large picture as it does of a small one",
          "[cli][convert]") {
  const TempDir dir;
  const auto small = random_bytes(3 * 1000 * 20);
  std::vector<std::uint8_t> large;
  for (int k = 0; k < 30; ++k) large.insert(large.end(), small.begin(), small.end());
  const auto mapped = [&](std::uint32_t height, const std::vector<std::uint8_t>& rgb,
                          const char* threads) {
    PictureSpec spec = spec_of(1000, height, 3);
    spec.space = &spaces::kRec2020;
    write_picture(dir / "wide.png", spec, bytes_of(rgb));
    summary_of(run_tool(dir, {"convert", "wide.png", "--to", "srgb", "--gamut", "map", "--threads",
                              threads, "-o", "mapped.png", "--summary", "json"}));
    return bytes_in(dir / "mapped.png");
  };
  const auto one = mapped(20, small, "1");
  std::vector<std::uint8_t> many;
  for (int k = 0; k < 30; ++k) many.insert(many.end(), one.begin(), one.end());
  CHECK(mapped(600, large, "1") == many);
  CHECK(mapped(600, large, "3") == many);
}

TEST_CASE("convert dithers so that means come out right", "[cli][convert]") {
  const TempDir dir;
  // 100 of 255 and a quarter of a code; and a whole code.
  std::vector<std::uint16_t> deep;
  for (int i = 0; i < 64 * 64; ++i) deep.insert(deep.end(), {25764, 25764, 25700});
  write_picture(dir / "deep.png", spec_of(64, 64, 3, SampleType::kU16), bytes_of(deep));
  const auto converted = [&](const std::vector<std::string>& more) {
    summary_of(run_tool(
        dir,
        with({"convert", "deep.png", "--depth", "8", "-o", "o.png", "--summary", "json"}, more)));
    return bytes_in(dir / "o.png");
  };
  const auto plain = converted({}), dithered = converted({"--dither"});
  double sum = 0;
  for (std::size_t i = 0; i < plain.size(); i += 3) {
    CHECK(plain[i] == 100);
    CHECK((dithered[i] == 100 || dithered[i] == 101));
    CHECK(dithered[i + 2] == 100);  // what is a whole code stays
    sum += dithered[i];
  }
  CHECK(sum / (64 * 64) == Approx(100.249).margin(0.03));
  CHECK(converted({"--dither", "--threads", "1"}) == converted({"--dither", "--threads", "4"}));
  CHECK(converted({"--dither", "--seed", "2"}) != dithered);
}

TEST_CASE("convert puts channels in order", "[cli][convert]") {
  const TempDir dir;
  write_rgb(dir / "bgr.png", 2, 1, {10, 20, 30, 40, 50, 60});
  for (const std::string order : {"b,g,r", "3,2,1"}) {
    summary_of(run_tool(
        dir, {"convert", "bgr.png", "--order", order, "-o", "o.png", "--summary", "json"}));
    CHECK(bytes_in(dir / "o.png") == std::vector<std::uint8_t>{30, 20, 10, 60, 50, 40});
  }
  // The file holds g, b, r.
  summary_of(run_tool(
      dir, {"convert", "bgr.png", "--order", "g,b,r", "-o", "o.png", "--summary", "json"}));
  CHECK(bytes_in(dir / "o.png") == std::vector<std::uint8_t>{30, 10, 20, 60, 40, 50});
}

TEST_CASE("codes beyond the full one are out of range like floats", "[cli][convert]") {
  const TempDir dir;
  // Twice the full red, the full red, and a gray.
  write_picture(dir / "deep.png", spec_of(3, 1, 3, SampleType::kU16),
                bytes_of(std::vector<std::uint16_t>{8190, 100, 100, 4095, 0, 0, 700, 700, 700}));
  const auto converted = [&](const std::string& to) {
    return summary_of(run_tool(
        dir, words_of("convert deep.png --full-scale 4095 --summary json " + to)))["inputs"][0];
  };
  // display-p3 holds all of sRGB, but not what is beyond its range.
  const json wider = converted("--to display-p3 --depth 8 -o p3.png");
  CHECK(wider["out_of_gamut_percent"].get<double>() == Approx(100.0 / 3));
  CHECK(wider["largest_excess"].get<double>() > 200);
  const json hsv = converted("--to hsv --depth float -o hsv.tif");
  CHECK(hsv["clipped_before_percent"].get<double>() == Approx(100.0 / 3));
  PictureFile file = open_picture(dir / "hsv.tif");
  const auto values = samples_of<float>(file);
  CHECK(values[2] == Approx(100));
  CHECK(values[5] == Approx(100));
  // All bits in use, none can be.
  const json all = summary_of(run_tool(
      dir, words_of("convert deep.png --to display-p3 -o all.png --summary json")))["inputs"][0];
  CHECK(all["out_of_gamut_percent"] == 0);
}

TEST_CASE("convert says what contradicts itself", "[cli][convert]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 1, 1, {1, 2, 3});
  const std::vector<std::pair<std::vector<std::string>, std::string>> wrong{
      {{"--order", "r,g"}, "'r,g' does not name three channels"},
      {{"--order", "r,g,g"}, "does not name three channels"},
      {{"--gamut", "squeeze"}, "--gamut"},
      {{"--to", "lab", "--gamut", "map"}, "--gamut map is for r g b"},
      {{"--dither"}, "--dither is for 8 bits"},
      {{"--dither", "--depth", "16"}, "--dither is for 8 bits"}};
  for (const auto& [options, says] : wrong) {
    check_error(run_tool(dir, with({"convert", "a.png", "-o", "x.png"}, options)), 2, says);
  }
  write_picture(dir / "gray.png", spec_of(2, 1, 1), bytes_of(std::vector<std::uint8_t>{50, 90}));
  check_error(run_tool(dir, {"convert", "gray.png", "--order", "b,g,r", "-o", "x.png"}), 1,
              "is gray, so there is no order");
  CHECK_FALSE(std::filesystem::exists(dir / "x.png"));
}

TEST_CASE("what a file says of its picture is said again of what is made of it", "[cli][convert]") {
  const TempDir dir;
  PictureSpec spec = spec_of(6, 4, 3);
  spec.carried.pixels_per_meter_x = 4000;
  spec.carried.pixels_per_meter_y = 2000;
  spec.carried.description = "west wall";
  spec.carried.captured = "2026:05:17 14:03:21";
  spec.carried.ground = {{33550, {0.5, 0.5, 0}, {}, {}}};
  write_picture(dir / "a.tif", spec, bytes_of(random_bytes(72)));
  const std::vector<std::vector<std::string>> commands{
      {"convert", "a.tif", "--to", "lab", "-o", "lab.tif"},
      {"convert", "a.tif", "--to", "display-p3", "-o", "p3.png"},
      {"convert", "a.tif", "-o", "b.jpg"},
      {"convert", "a.tif", "-o", "b.webp"},
      {"smooth", "a.tif", "--filter", "mean", "--radius", "1", "-o", "smooth.png"},
      {"reframe", "a.tif", "--turn", "90", "-o", "turned.tif"},
      {"mask", "a.tif", "--where", "gray > 100", "--figures", "none", "-o", "."},
      {"split", "a.tif", "--channels", "lab.l", "-o", "."}};
  for (const auto& command : commands) CHECK(run_tool(dir, command).exit_code == 0);
  for (const char* name : {"lab.tif", "p3.png", "b.jpg", "smooth.png", "turned.tif", "a.mask.png",
                           "a.cutout.png", "a.lab.l.png"}) {
    INFO(name);
    REQUIRE(std::filesystem::exists(dir / name));
    const CarriedFacts found = open_picture(dir / name, {}).facts.carried;
    const bool turned = std::string(name) == "turned.tif";
    CHECK(found.pixels_per_meter_x == Approx(turned ? 2000 : 4000).epsilon(0.01));
    CHECK(found.pixels_per_meter_y == Approx(turned ? 4000 : 2000).epsilon(0.01));
    CHECK(found.description == "west wall");
    CHECK(found.captured == "2026:05:17 14:03:21");
    CHECK(found.ground.size() == (std::string(name) == "lab.tif" ? 1 : 0));
  }
}

TEST_CASE("WebP holds a picture as it is, from command to command", "[cli][convert]") {
  const TempDir dir;
  write_stripes(dir / "a.png");
  CHECK(run_tool(dir, {"convert", "a.png", "-o", "a.webp"}).exit_code == 0);
  CHECK(bytes_in(dir / "a.webp") == bytes_in(dir / "a.png"));
  const json looked =
      summary_of(run_tool(dir, {"inspect", "a.webp", "--summary", "json"}))["inputs"][0];
  CHECK(looked["format"] == "WebP");
  CHECK(looked["space"] == "srgb");
  CHECK(run_tool(dir, {"smooth", "a.webp", "--filter", "median", "--radius", "1", "-o", "b.webp"})
            .exit_code == 0);
  check_error(run_tool(dir, {"convert", "a.png", "--to", "lab", "-o", "lab.webp"}), 2,
              "a WebP would not keep the numbers of lab");
  CHECK_FALSE(std::filesystem::exists(dir / "lab.webp"));
}
