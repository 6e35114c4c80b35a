// `inspect` at the built program: what it finds odd, grids of values, the grid of coordinates.
#include <catch2/catch.hpp>
#include <cmath>
#include <nlohmann/json.hpp>
#include <set>

#include "tests/support/glass_maps.h"
#include "tests/support/other_writers.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

std::vector<std::string> findings_of(const TempDir& dir, const std::string& name,
                                     const std::vector<std::string>& more = {}) {
  const json found = summary_of(run_tool(dir, with({"inspect", name, "--summary", "json"}, more)));
  return found["inputs"][0]["findings"].get<std::vector<std::string>>();
}

using Sentences = std::vector<std::string>;

}  // namespace

TEST_CASE("inspect finds channels that are flat or cut off", "[cli][inspect]") {
  const TempDir dir;
  std::vector<std::uint8_t> rgb;
  for (int i = 0; i < 200; ++i)
    rgb.insert(rgb.end(), {static_cast<std::uint8_t>(i < 5 ? 0 : i), 7,
                           static_cast<std::uint8_t>(i < 197 ? i : 255)});
  write_rgb(dir / "a.png", 20, 10, rgb);
  CHECK(findings_of(dir, "a.png") == Sentences{"2.5 % of srgb.r is at 0: cut off?",
                                               "srgb.g is 7 everywhere",
                                               "1.5 % of srgb.b is at full scale: cut off?"});
}

TEST_CASE("inspect finds depth that is not used, and floats past full scale", "[cli][inspect]") {
  const TempDir dir;
  std::vector<std::uint16_t> twelve{1, 4095, 4000, 17, 3000, 5, 2000, 900, 1200, 80, 70, 60};
  write_picture(dir / "12.png", spec_of(4, 1, 3, SampleType::kU16), bytes_of(twelve));
  CHECK(findings_of(dir, "12.png") ==
        Sentences{"stored with 16 bits, but no value passes 4095, as of 12 bits: "
                  "--full-scale 4095 takes it so"});
  for (std::uint16_t& sample : twelve) sample = static_cast<std::uint16_t>(sample / 4 + 1);
  write_picture(dir / "10.png", spec_of(4, 1, 3, SampleType::kU16), bytes_of(twelve));
  CHECK(findings_of(dir, "10.png") ==
        Sentences{"stored with 16 bits, but no value passes 4095, as of 12 bits: "
                  "--full-scale 4095 takes it so"});
  for (std::uint16_t& sample : twelve) sample = std::min<std::uint16_t>(sample, 1023);
  write_picture(dir / "10.png", spec_of(4, 1, 3, SampleType::kU16), bytes_of(twelve));
  CHECK(findings_of(dir, "10.png") ==
        Sentences{"stored with 16 bits, but no value passes 1023, as of 10 bits: "
                  "--full-scale 1023 takes it so"});
  // Nobody is told what they said.
  for (const std::string& finding : findings_of(dir, "10.png", {"--full-scale", "1023"}))
    CHECK_THAT(finding, !Catch::StartsWith("stored"));
  write_picture(dir / "f.tif", spec_of(2, 1, 3, SampleType::kF32),
                bytes_of(std::vector<float>{0.1f, 0.2f, 0.3f, 3.5f, 0.4f, 0.9f}));
  CHECK(findings_of(dir, "f.tif") == Sentences{"50 % of srgb.r is at full scale: cut off?",
                                               "srgb.r goes up to 3.5 times full scale"});
}

TEST_CASE("inspect finds the bad scan edge of panel D and no edge on panel A", "[cli][inspect]") {
  const TempDir dir;
  copy_demo(dir, "panel-a.png");
  copy_demo(dir, "panel-d.png");
  CHECK(findings_of(dir, "panel-a.png").empty());
  CHECK(findings_of(dir, "panel-d.png") ==
        Sentences{"the 5 columns at the right are unlike the rest"});
}

TEST_CASE("inspect prints grids of values and draws coordinates", "[cli][inspect]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  const json found =
      summary_of(run_tool(dir, {"inspect", "s.png", "--space", "hsv", "--values", "17,8,2,2",
                                "--grid", "g.png", "--summary", "json"}));
  const json& values = found["inputs"][0]["values"];
  CHECK(values["x"] == 17);
  CHECK(values["grids"][0]["channel"] == "hsv.h");
  CHECK(values["grids"][0]["rows"][1][1].is_null());  // dark gray has no hue
  CHECK(values["grids"][2]["rows"][0][1].get<double>() == Approx(100 * 20 / 255.0));
  CHECK(found["outputs"] == json{"g.png"});
  CHECK(open_picture(dir / "g.png", {}).info.shape.width == 1280);
  const auto text = run_tool(dir, {"inspect", "s.png", "--values", "6,0,3,1"});
  CHECK_THAT(text.out,
             Catch::Contains("srgb.r    6    7   8") && Catch::Contains("0       200  200  30"));
}

TEST_CASE("a gray is shown without the noise of arithmetic, and a faint light as it is",
          "[cli][inspect]") {
  const TempDir dir;
  write_rgb(dir / "white.png", 1, 1, {255, 255, 255});
  const std::string out = run_tool(dir, {"inspect", "white.png", "--space", "lab,oklch", "--at",
                                         "0,0", "--values", "0,0,1,1"})
                              .out;
  CHECK_THAT(out, Catch::Contains("l 100  a 0  b 0  (white D50)"));
  CHECK_THAT(out, Catch::Contains("l 1  c 0  h none"));
  CHECK(out.find("e-0") == std::string::npos);
  // Stored values are shown whatever they are.
  PictureSpec spec = spec_of(1, 1, 3, SampleType::kF32);
  write_picture(dir / "faint.tif", spec, bytes_of(std::vector<float>{1e-7f, 1e-7f, 2e-7f}));
  const std::string faint = run_tool(dir, {"inspect", "faint.tif", "--values", "0,0,1,1"}).out;
  CHECK_THAT(faint, Catch::Contains("2.55e-05"));
}

TEST_CASE("inspect says what it cannot show", "[cli][inspect]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  check_error(run_tool(dir, {"inspect", "s.png", "--values", "19,0,2,1"}), 1, "s.png");
  check_error(run_tool(dir, {"inspect", "s.png", "--values", "few"}), 2, "--values");
  check_error(run_tool(dir, {"inspect", "s.png", "--grid", "g.gif"}), 2,
              "'.gif' is no format of a figure");
  check_error(run_tool(dir, {"inspect", "s.png", "s.png", "--grid", "g.png"}), 2,
              "--grid names one file");
  check_error(run_tool(dir, {"inspect", "s.png", "--grid", "s.png"}), 1, "is an input");
  std::vector<std::uint8_t> wide(100 * 3, 9);
  write_rgb(dir / "w.png", 100, 1, wide);
  check_error(run_tool(dir, {"inspect", "w.png", "--values", "0,0,33,1"}), 1,
              "is 33x1 pixels, more than can be read");
  CHECK(dir.files() == std::set<std::string>{"s.png", "w.png"});
}

TEST_CASE("statistics are of several spaces at once", "[cli][inspect]") {
  const TempDir dir;
  write_stripes(dir / "a.png");
  const json looked =
      summary_of(run_tool(dir, {"inspect", "a.png", "--space", "hsv,lab", "--region", "0,0,8,4",
                                "--summary", "json"}))["inputs"][0];
  std::vector<std::string> names;
  for (const json& channel : looked["channels"]) names.push_back(channel["channel"]);
  CHECK(names == std::vector<std::string>{"hsv.h", "hsv.s", "hsv.v", "lab.l", "lab.a", "lab.b"});
  const json lab = summary_of(run_tool(dir, {"inspect", "a.png", "--space", "lab", "--region",
                                             "0,0,8,4", "--summary", "json"}))["inputs"][0];
  CHECK(looked["channels"][3] == lab["channels"][0]);
}

TEST_CASE("distinct colors are counted of deep pictures too", "[cli][inspect]") {
  const TempDir dir;
  write_picture(dir / "d.png", spec_of(4, 1, 3, SampleType::kU16),
                bytes_of(std::vector<std::uint16_t>{1, 2, 3, 1, 2, 3, 1, 2, 4, 65535, 0, 0}));
  write_picture(dir / "g.tif", spec_of(3, 1, 1, SampleType::kF32),
                bytes_of(std::vector<float>{0.1f, 0.1f, 0.2f}));
  const auto distinct = [&](const char* file) {
    return summary_of(run_tool(
        dir, {"inspect", file, "--summary", "json"}))["inputs"][0]["distinct_colors"]
        .get<int>();
  };
  CHECK(distinct("d.png") == 3);
  CHECK(distinct("g.tif") == 2);
  CHECK_THAT(run_tool(dir, {"inspect", "d.png"}).out, Catch::Contains("  3 distinct colors\n"));
  std::vector<std::uint16_t> many;
  for (std::uint32_t i = 0; i < 1025 * 1024; ++i)
    for (const std::uint32_t value : {i % 65536, i / 65536, 7u})
      many.push_back(static_cast<std::uint16_t>(value));
  write_picture(dir / "m.tif", spec_of(1025, 1024, 3, SampleType::kU16), bytes_of(many));
  const Outcome run = run_tool(dir, {"inspect", "m.tif"});
  CHECK_THAT(run.out, Catch::Contains("  more than 1,048,576 distinct colors\n"));
}

TEST_CASE("the mean color of a part is told in several spaces", "[cli][inspect]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 3, 1, {255, 0, 0, 0, 0, 0, 51, 102, 204});
  const auto looked = [&](const std::vector<std::string>& more) {
    return summary_of(
        run_tool(dir, with({"inspect", "a.png", "--summary", "json"}, more)))["inputs"][0];
  };
  const json part = looked({"--region", "0,0,2,1", "--space", "hsv"})["mean_color"];
  CHECK(part["css"] == "#800000");
  CHECK(part["srgb"]["r"] == 127.5);
  CHECK(part["hsv"]["h"] == 0.0);
  CHECK(part["hsv"]["v"].get<double>() == Approx(50));
  CHECK(part["lab"]["l"].get<double>() ==
        Approx(116 * std::cbrt(0.2225 * 0.21404) - 16).margin(0.05));
  write_labels(dir / "m.png", 3, std::vector<std::uint8_t>{0, 255, 255});
  CHECK(looked({"--within", "m.png"})["mean_color"]["css"] == "#1a3366");
  CHECK_FALSE(looked({}).contains("mean_color"));
  const Outcome text = run_tool(dir, {"inspect", "a.png", "--region", "2,0,1,1"});
  CHECK_THAT(text.out,
             Catch::Contains("  mean r g b of 1 pixel  #3366cc\n    srgb    r 51  g 102  b 204\n"));
  // Hues have no mean of this kind.
  run_tool(dir, {"convert", "a.png", "--to", "hsv", "-o", "h.png"});
  CHECK_FALSE(summary_of(run_tool(
      dir, {"inspect", "h.png", "--region", "0,0,2,1", "--summary", "json"}))["inputs"][0]
                  .contains("mean_color"));
}

TEST_CASE("distinct colors are those that are stored, in every space and on every scale",
          "[cli][inspect]") {
  const TempDir dir;
  const std::vector<std::uint8_t> codes{0, 0,   0, 255, 255, 255, 9, 0, 255,
                                        0, 255, 9, 0,   0,   0,   8, 0, 255};
  PictureSpec spec = spec_of(6, 1, 3);
  for (const Space* space : {&spaces::kSrgb, &spaces::kLab, &spaces::kHsv}) {
    INFO(space->id);
    spec.space = space;
    write_picture(dir / "p.png", spec, bytes_of(codes));
    for (const std::vector<std::string>& more :
         {std::vector<std::string>{}, {"--full-scale", "100"}, {"--region", "0,0,6,1"}}) {
      const Outcome run = run_tool(dir, with({"inspect", "p.png", "--summary", "json"}, more));
      CHECK(summary_of(run)["inputs"][0]["distinct_colors"] == 5);
    }
  }
}

TEST_CASE("statistics by distinct colors are those by pixels", "[cli][inspect]") {
  const TempDir dir;
  // One picture in 8 bits, of which distinct colors are counted, and in 16, of which they are not.
  constexpr std::uint32_t kWidth = 1000, kHeight = 600;
  auto codes = random_bytes(4 * kWidth * kHeight);
  std::vector<std::uint16_t> deep;
  for (std::size_t i = 0; i < codes.size(); ++i) {
    codes[i] = i % 4 < 3 ? static_cast<std::uint8_t>(codes[i] / 16 * 17) : codes[i] > 40 ? 255 : 0;
    deep.push_back(static_cast<std::uint16_t>(codes[i] * 257));
  }
  write_picture(dir / "flat.png", spec_of(kWidth, kHeight, 4), bytes_of(codes));
  write_picture(dir / "deep.png", spec_of(kWidth, kHeight, 4, SampleType::kU16), bytes_of(deep));
  const auto inspected = [&](const std::string& name, const std::vector<std::string>& more) {
    return summary_of(run_tool(
        dir,
        with({"inspect", name, "--space", "hsv,lab,cmy", "--summary", "json"}, more)))["inputs"][0];
  };
  for (const std::vector<std::string>& more :
       {std::vector<std::string>{},
        {"--region", "100,50,700,500"},
        {"--hue-floor", "30"},
        {"--alpha", "count", "--at", "3,4", "--values", "10,10,2,2"}}) {
    const json flat = inspected("flat.png", more), plain = inspected("deep.png", more);
    CHECK(flat["counted"] == plain["counted"]);
    CHECK(flat["excluded"] == plain["excluded"]);
    CHECK(flat["clipped"] == plain["clipped"]);
    CHECK(flat["distinct_colors"] == 4096);
    for (const char* key : {"at", "values"})
      CHECK(flat.value(key, json()) == plain.value(key, json()));
    REQUIRE(flat["channels"].size() == 9);
    for (std::size_t i = 0; i < 9; ++i) {
      const json &one = flat["channels"][i], &other = plain["channels"][i];
      REQUIRE(one.size() == other.size());
      for (const auto& [key, value] : one.items()) {
        CAPTURE(one["channel"], key);
        if (value.is_number_float()) {
          CHECK(value.get<double>() == Approx(other[key].get<double>()).margin(1e-4));
        } else {
          CHECK(value == other[key]);
        }
      }
    }
  }
  const auto none = inspected("flat.png", {"--threads", "1"});
  CHECK(none == inspected("flat.png", {"--threads", "3"}));
}

TEST_CASE("integers divide by the full scale that is named", "[cli][inspect]") {
  const TempDir dir;
  write_picture(dir / "a.png", spec_of(2, 1, 3, SampleType::kU16),
                bytes_of(std::vector<std::uint16_t>{4095, 2048, 0, 0, 1024, 4095}));
  const json looked = summary_of(run_tool(
      dir, {"inspect", "a.png", "--full-scale", "4095", "--summary", "json"}))["inputs"][0];
  CHECK(looked["channels"][0]["maximum"].get<double>() == Approx(255));
  CHECK(looked["channels"][1]["maximum"].get<double>() == Approx(255.0 * 2048 / 4095));
  // What is written is full at its own full scale.
  CHECK(run_tool(dir, {"reframe", "a.png", "--full-scale", "4095", "--turn", "180", "-o", "b.png"})
            .exit_code == 0);
  PictureFile turned = open_picture(dir / "b.png", {});
  CHECK(samples_of<std::uint16_t>(turned) ==
        std::vector<std::uint16_t>{0, 16388, 65535, 65535, 32776, 0});
  check_error(run_tool(dir, {"inspect", "a.png", "--full-scale", "0"}), 2,
              "--full-scale: '0' is not a whole number from 1 to 65535");
}

TEST_CASE("values are read out on 0-1 or as the codes of the file", "[cli][inspect]") {
  const TempDir dir;
  write_picture(dir / "deep.png", spec_of(2, 1, 3, SampleType::kU16),
                bytes_of(std::vector<std::uint16_t>{40001, 300, 65535, 20002, 300, 0}));
  const auto inspected = [&](const char* units) {
    return summary_of(
        run_tool(dir, {"inspect", "deep.png", "--units", units, "--at", "0,0", "--values",
                       "0,0,2,1", "-o", "out", "--summary", "json"}))["inputs"][0];
  };
  const json codes = inspected("code");
  CHECK(codes["channels"][0]["unit"] == "0-65535");
  CHECK(codes["channels"][0]["maximum"] == 40001.0);
  CHECK(codes["channels"][0]["mean"] == 30001.5);
  CHECK(codes["values"]["grids"][0]["rows"][0] == json{40001.0, 20002.0});
  CHECK(codes["at"][0]["srgb"]["r"] == 40001.0);
  CHECK(codes["findings"][0] == "srgb.g is 300 everywhere");
  CHECK(codes["channels"][2]["at_high_percent"] == 50.0);
  CHECK(text_of_file(dir / "out/deep.statistics.csv").find("deep.png,srgb.r,0-65535,20002,") !=
        std::string::npos);
  CHECK(run_tool(dir, {"inspect", "deep.png", "--units", "code", "--at", "0,0"})
            .out.find("r 40001  g 300  b 65535") != std::string::npos);

  const json shares = inspected("unit");
  CHECK(shares["channels"][2]["unit"] == "0-1");
  CHECK(shares["channels"][2]["maximum"] == 1.0);
  CHECK(shares["at"][0]["srgb"]["r"].get<double>() == Approx(40001 / 65535.0));
  CHECK(shares["at"][0]["hsv"]["v"].get<double>() == Approx(1));
  check_error(run_tool(dir, {"inspect", "deep.png", "--units", "bits"}), 2,
              "use one of unit, code");
  check_error(run_tool(dir, {"tidy", "deep.png", "--units", "code"}), 2, "no option '--units'");
}

TEST_CASE("the classes of a class map are told, and the class at a pixel", "[cli][inspect]") {
  const TempDir dir;
  // ruby ruby lead / none lead lead
  write_glass(dir / "m.classes.png", 3, {1, 1, 2, 0, 2, 2});
  const std::vector<std::string> at{"inspect", "m.classes.png", "--at", "2,0", "--at", "0,1"};
  const json found = summary_of(run_tool(dir, with(at, {"--summary", "json"})))["inputs"][0];
  REQUIRE(found["classes"].size() == 2);
  CHECK(
      found["classes"][1] ==
      json{{"index", 2}, {"name", "lead"}, {"color", "#3c3d40"}, {"pixels", 3}, {"percent", 50.0}});
  CHECK(found["unclassified"] == 1);
  CHECK(found["at"][0]["class"] == "lead");
  CHECK(found["at"][1]["class"] == "");
  CHECK(found["findings"].empty());
  const Outcome text = run_tool(dir, at);
  CHECK_THAT(text.out, Catch::Contains("pixel 2,0 (lead)  #3c3d40") &&
                           Catch::Contains("pixel 0,1 (unclassified)") &&
                           Catch::Contains("unclassified                1  16.67 %"));
  const json part = summary_of(run_tool(
      dir, {"inspect", "m.classes.png", "--region", "0,0,2,1", "--summary", "json"}))["inputs"][0];
  CHECK(part["classes"][0]["percent"] == 100);
  CHECK(part["classes"][1]["pixels"] == 0);
  // Of a mask by one as well; a picture has no classes.
  write_labels(dir / "half.png", 3, {255, 0, 255, 0, 0, 0});
  const json within = summary_of(run_tool(
      dir, {"inspect", "m.classes.png", "--within", "half.png", "--summary", "json"}))["inputs"][0];
  CHECK(within["classes"][0]["pixels"] == 1);
  CHECK(within["classes"][1]["pixels"] == 1);
  CHECK_FALSE(
      summary_of(run_tool(dir, {"inspect", "half.png", "--summary", "json"}))["inputs"][0].contains(
          "classes"));
}

TEST_CASE("the pictures of a TIFF that holds several are asked for by number", "[cli][inspect]") {
  const TempDir dir;
  write_other_tiff(dir / "stack.tif", {.width = 2}, {10, 20});
  write_other_tiff(dir / "stack.tif", {.width = 3, .mode = "a"}, {30, 30, 90});
  const Outcome first = run_tool(dir, {"inspect", "stack.tif"});
  CHECK(first.exit_code == 0);
  CHECK(first.err ==
        "chalcedony: warning: stack.tif: holds 2 pictures, of which the first is read; give --page "
        "for others\n");
  CHECK_THAT(first.out, Catch::Contains("  picture 1 of the 2 in the file\n"));
  const Outcome second =
      run_tool(dir, {"inspect", "stack.tif", "--page", "2", "--summary", "json"});
  CHECK(second.err.empty());
  const json picture = summary_of(second)["inputs"][0];
  CHECK(picture["width"] == 3);
  CHECK(picture["page"] == 2);
  CHECK(picture["pages"] == 2);
  CHECK(picture["channels"][0]["maximum"] == 90);
  check_error(run_tool(dir, {"histogram", "stack.tif", "--page", "3", "-o", "out"}), 1,
              "stack.tif: holds 2 pictures, and --page asks for number 3; give a number up to 2");
  CHECK(dir.files() == std::set<std::string>{"stack.tif"});
  // how.json makes the same of the same page.
  REQUIRE(run_tool(dir, {"mask", "stack.tif", "--page", "2", "--where", "gray > 50", "-o", "out/",
                         "--figures", "none"})
              .exit_code == 0);
  REQUIRE(run_tool(dir, {"run", "out/how.json", "-o", "again/"}).exit_code == 0);
  CHECK(labels_in(dir / "again/stack.mask.png") == std::vector<std::uint8_t>{0, 0, 255});
}
