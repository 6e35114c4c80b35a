// The peaks of the demo panels, and the selections they come with.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

TEST_CASE("each colored glass of the plain panels is a peak whose selection takes it",
          "[cli][peaks]") {
  const TempDir dir;
  std::filesystem::copy(CHALCEDONY_DEMO_DATA, dir.path());
  for (const char* panel : {"panel-a", "panel-b", "panel-c"}) {
    const std::string picture = std::string(panel) + ".png";
    const json found = summary_of(run_tool(dir, {"histogram", picture, "--joint", "hsv.h,hsv.s",
                                                 "--peaks", "8", "--summary", "json"}));
    const auto truth = labels_in(dir / (std::string(panel) + ".reference.png"));
    std::array<double, 5> best{};  // by glass: ruby, cobalt, amber, emerald are 1 to 4
    for (const json& peak : found["inputs"][0]["peaks"][0]["peaks"]) {
      const json masked =
          summary_of(run_tool(dir, {"mask", picture, "--where", peak["where"].get<std::string>(),
                                    "-o", "out", "--write", "mask", "--summary", "json"}));
      // The histogram says what mask takes, to the pixel.
      CHECK(masked["inputs"][0]["selected"] == peak["pixels"]);
      const auto mask = labels_in(dir / ("out/" + std::string(panel) + ".mask.png"));
      std::array<std::uint64_t, 7> in{}, all{};
      for (std::size_t i = 0; i < mask.size(); ++i) {
        ++all[truth[i]];
        in[truth[i]] += mask[i] == 255;
      }
      for (std::size_t glass = 1; glass <= 4; ++glass) {
        const double own = static_cast<double>(in[glass]) / static_cast<double>(all[glass]);
        if (own < best[glass]) continue;
        best[glass] = own;
        for (std::size_t other = 1; other <= 6; ++other)
          if (other != glass && own > 0.5)
            CHECK(static_cast<double>(in[other]) <= 0.05 * static_cast<double>(all[other]));
      }
    }
    for (std::size_t glass = 1; glass <= 4; ++glass) {
      INFO(panel << " glass " << glass);
      CHECK(best[glass] >= 0.9);
    }
  }
}

TEST_CASE("peaks are tabled with what their selections take", "[cli][peaks]") {
  const TempDir dir;
  // Red and green halves, and a little blue.
  std::vector<std::uint8_t> rgb;
  for (int i = 0; i < 40 * 30; ++i) {
    const int c = i % 40 < 4 ? 2 : i % 40 < 20 ? 0 : 1;
    for (int k = 0; k < 3; ++k) rgb.push_back(k == c ? 220 : 20);
  }
  write_rgb(dir / "p.png", 40, 30, rgb);
  const json summary =
      summary_of(run_tool(dir, {"histogram", "p.png", "--channels", "hsv.h,srgb.r", "--peaks", "3",
                                "-o", "out", "--summary", "json"}));
  const json& hue = summary["inputs"][0]["peaks"][0];
  CHECK(hue["histogram"] == "hsv.h");
  REQUIRE(hue["peaks"].size() == 3);
  CHECK(hue["peaks"][0]["css"] == "#14dc14");
  CHECK(hue["peaks"][0]["pixels"] == 600);
  CHECK(hue["peaks"][1]["css"] == "#dc1414");
  CHECK(hue["peaks"][2]["percent"] == 10.0);
  // 8-bit codes are selected by themselves.
  CHECK(summary["inputs"][0]["peaks"][1]["peaks"][0]["where"] == "srgb.r in 20..20");
  const auto lines = lines_of(dir / "out/p.peaks.csv");
  REQUIRE(lines.size() == 1 + 3 + 2);
  CHECK_THAT(lines[1],
             Catch::StartsWith("hsv.h,1,hsv.h,") && Catch::Contains(",600,50,#14dc14,hsv.h in "));
  CHECK(text_of_file(dir / "out/p.histogram.png").starts_with("\x89PNG"));
  check_error(run_tool(dir, {"histogram", "p.png", "--peaks", "0"}), 2,
              "--peaks: '0' is not a whole number from 1");
}

TEST_CASE("peaks of one histogram are classes of a map by slice", "[cli][peaks][slice]") {
  const TempDir dir;
  copy_demo(dir, "panel-a.png");
  const Words peaks{"histogram", "panel-a.png", "--joint", "hsv.h,hsv.s", "--peaks",
                    "4",         "-o",          "out",     "--figures",   "none"};
  const Outcome said = run_tool(dir, peaks);
  CHECK_THAT(said.out, Catch::EndsWith("give out/panel-a.peaks.yaml to slice with --config for a "
                                       "class map, or to tune to see and change it\n"));
  const json found = summary_of(run_tool(dir, with(peaks, {"--summary", "json"})));
  const json sliced = summary_of(run_tool(
      dir, {"slice", "panel-a.png", "--config", "out/panel-a.peaks.yaml", "--summary", "json"}));
  REQUIRE(sliced["selections"].size() == 4);
  for (std::size_t p = 0; p < 4; ++p) {
    const json& peak = found["inputs"][0]["peaks"][0]["peaks"][p];
    CHECK(sliced["selections"][p]["name"] == "peak " + std::to_string(p + 1));
    CHECK(sliced["selections"][p]["where"] == peak["where"]);
    CHECK(sliced["selections"][p]["color"] == peak["css"]);
  }
  CHECK(sliced["inputs"][0]["classes"][0]["pixels"] ==
        found["inputs"][0]["peaks"][0]["peaks"][0]["pixels"]);
  // Peaks of several histograms are no classes of one map.
  const Outcome several = run_tool(
      dir, {"histogram", "panel-a.png", "--channels", "hsv.h,hsv.s", "--peaks", "2", "-o", "two"});
  CHECK(several.exit_code == 0);
  CHECK(std::filesystem::exists(dir / "two/panel-a.peaks.csv"));
  CHECK_FALSE(std::filesystem::exists(dir / "two/panel-a.peaks.yaml"));
}

TEST_CASE("peaks of gray, deep and float pictures are found as well", "[cli][peaks]") {
  const TempDir dir;
  write_picture(dir / "deep.png", spec_of(2, 2, 1, SampleType::kU16),
                bytes_of(std::vector<std::uint16_t>{1000, 1000, 60000, 60000}));
  PictureSpec lab = spec_of(2, 1, 3, SampleType::kF32);
  lab.space = &spaces::kLab;
  write_picture(dir / "lab.tif", lab, bytes_of(std::vector<float>{30, 10, 10, 80, -10, 5}));
  const json deep = summary_of(run_tool(
      dir, {"histogram", "deep.png", "--channels", "gray", "--peaks", "5", "--summary", "json"}));
  REQUIRE(deep["inputs"][0]["peaks"][0]["peaks"].size() == 2);
  // 60000 of 65535 is 233.46 of 255, past the code that begins its bin.
  const json floats = summary_of(run_tool(
      dir, {"histogram", "lab.tif", "--channels", "lab.l", "--peaks", "5", "--summary", "json"}));
  REQUIRE(floats["inputs"][0]["peaks"][0]["peaks"].size() == 2);
  for (const json& peak : floats["inputs"][0]["peaks"][0]["peaks"]) CHECK(peak["pixels"] == 1);
  std::uint64_t taken = 0;
  for (const json& peak : deep["inputs"][0]["peaks"][0]["peaks"])
    taken += peak["pixels"].get<std::uint64_t>();
  CHECK(taken == 4);
}
