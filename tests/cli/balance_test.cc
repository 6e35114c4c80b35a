// `balance` at the built program: medians, casts, light, saved curves, and what it refuses.
#include <catch2/catch.hpp>
#include <cmath>
#include <nlohmann/json.hpp>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

/// The medians of r, g and b of a picture, or of a part of it.
std::vector<double> medians_of(const TempDir& dir, const std::string& name,
                               const std::string& region = "percent:0,0,100,100") {
  const json seen =
      summary_of(run_tool(dir, {"inspect", name, "--region", region, "--summary", "json"}));
  std::vector<double> medians;
  for (const json& channel : seen["inputs"][0]["channels"]) medians.push_back(channel["median"]);
  return medians;
}

/// 60 x 40: noise around a dark red, a middle green and a light blue in each pixel.
void write_cast(const std::filesystem::path& path) {
  std::vector<std::uint8_t> rgb = random_bytes(60 * 40 * 3, 5);
  for (std::size_t i = 0; i < rgb.size(); ++i)
    rgb[i] = static_cast<std::uint8_t>(rgb[i] / 4 + (i % 3) * 40 + 10);
  write_rgb(path, 60, 40, rgb);
}

}  // namespace

TEST_CASE("balance brings the medians to one target", "[cli][balance]") {
  const TempDir dir;
  write_cast(dir / "c.png");
  for (const std::string curve : {"gain", "power", "asinh"}) {
    const json found = summary_of(run_tool(dir, {"balance", "c.png", "--curve", curve, "--target",
                                                 "100", "-o", "b.png", "--summary", "json"}));
    for (const double median : medians_of(dir, "b.png")) CHECK(std::abs(median - 100) <= 0.5);
    CHECK(found["inputs"][0]["curves"][0]["median_after"].get<double>() == Approx(100));
    CHECK(found["outputs"] == json{"b.png", "b.figure.png"});
  }
  // Without a target: the mean of the three. Of a region: its medians, whatever is outside.
  const auto before = medians_of(dir, "c.png");
  summary_of(run_tool(dir, {"balance", "c.png", "-o", "b.png", "--summary", "json"}));
  const double mean = (before[0] + before[1] + before[2]) / 3;
  for (const double median : medians_of(dir, "b.png")) CHECK(std::abs(median - mean) <= 0.5);
  summary_of(run_tool(dir, {"balance", "c.png", "--neutral", "10,10,7,7", "--target", "90", "-o",
                            "n.png", "--summary", "json"}));
  for (const double median : medians_of(dir, "n.png", "10,10,7,7"))
    CHECK(std::abs(median - 90) <= 0.5);
}

TEST_CASE("curves learned from distinct colors are those learned from pixels", "[cli][balance]") {
  const TempDir dir;
  // In 8 bits, of which distinct colors are counted, and in 16, of which they are not.
  constexpr std::uint32_t kWidth = 1000, kHeight = 600;
  auto codes = random_bytes(4 * kWidth * kHeight, 8);
  std::vector<std::uint16_t> deep;
  for (std::size_t i = 0; i < codes.size(); ++i) {
    const std::size_t channel = i % 4;
    codes[i] = channel == 3 ? (codes[i] > 30 ? 255 : 0)
                            : static_cast<std::uint8_t>(codes[i] / 32 * 20 + channel * 30);
    deep.push_back(static_cast<std::uint16_t>(codes[i] * 257));
  }
  write_picture(dir / "flat.png", spec_of(kWidth, kHeight, 4), bytes_of(codes));
  write_picture(dir / "deep.png", spec_of(kWidth, kHeight, 4, SampleType::kU16), bytes_of(deep));
  for (const Words& more :
       {Words{}, Words{"--equalize"}, Words{"--on", "lightness", "--target", "60"},
        Words{"--black", "2%", "--white", "99%", "--region", "10,20,800,500"},
        Words{"--neutral", "100,100,50,50"}}) {
    const auto balanced = [&](const std::string& name) {
      Words arguments{"balance",   name + ".png",
                      "-o",        name + "-out.png",
                      "--save",    name + ".curves.json",
                      "--figures", "none",
                      "--summary", "json"};
      arguments.insert(arguments.end(), more.begin(), more.end());
      return summary_of(run_tool(dir, arguments))["inputs"][0];
    };
    const json flat = balanced("flat"), plain = balanced("deep");
    CHECK(flat["curves"] == plain["curves"]);
    CHECK(flat["counted"] == plain["counted"]);
    CHECK(flat["excluded"] == plain["excluded"]);
    CHECK(text_of_file(dir / "flat.curves.json") == text_of_file(dir / "deep.curves.json"));
    const auto bytes = bytes_in(dir / "flat-out.png");
    PictureFile file = open_picture(dir / "deep-out.png", {});
    const auto samples = samples_of<std::uint16_t>(file);
    REQUIRE(bytes.size() == samples.size());
    std::size_t differ = 0;
    for (std::size_t i = 0; i < bytes.size(); ++i)
      differ += std::abs(bytes[i] - samples[i] / 257.0) > 0.51;
    CHECK(differ == 0);
  }
}

TEST_CASE("balance sets black and white points and equalizes", "[cli][balance]") {
  const TempDir dir;
  write_cast(dir / "c.png");
  summary_of(run_tool(dir, {"balance", "c.png", "--curve", "none", "--black", "20", "--white",
                            "99%", "-o", "l.png", "--summary", "json"}));
  const auto before = bytes_in(dir / "c.png"), after = bytes_in(dir / "l.png");
  for (std::size_t i = 0; i < before.size(); i += 3)
    if (before[i] <= 20) CHECK(after[i] == 0);
  const json seen = summary_of(run_tool(dir, {"inspect", "l.png", "--summary", "json"}));
  for (const json& channel : seen["inputs"][0]["channels"]) {
    CHECK(channel["percentile_99"] == 255);
    CHECK(channel["at_high_percent"].get<double>() >= 1);
  }
  summary_of(run_tool(dir, {"balance", "c.png", "--equalize", "-o", "e.png", "--summary", "json"}));
  const json even = summary_of(run_tool(dir, {"inspect", "e.png", "--summary", "json"}));
  for (const json& channel : even["inputs"][0]["channels"]) {
    CHECK(channel["percentile_25"].get<double>() == Approx(64).margin(4));
    CHECK(channel["percentile_75"].get<double>() == Approx(191).margin(4));
  }
  const json lightness =
      summary_of(run_tool(dir, {"balance", "c.png", "--on", "lightness", "--target", "60", "-o",
                                "s.png", "--summary", "json"}));
  CHECK(lightness["inputs"][0]["curves"][0]["channel"] == "lab.l");
  const json lab =
      summary_of(run_tool(dir, {"inspect", "s.png", "--space", "lab", "--summary", "json"}));
  CHECK(lab["inputs"][0]["channels"][0]["median"].get<double>() == Approx(60).margin(0.3));
}

TEST_CASE("curves that were saved do the same to other pictures", "[cli][balance]") {
  const TempDir dir;
  write_cast(dir / "c.png");
  summary_of(run_tool(
      dir, {"balance", "c.png", "--save", "cast.json", "-o", "b.png", "--summary", "json"}));
  summary_of(run_tool(
      dir, {"balance", "c.png", "--apply", "cast.json", "-o", "again.png", "--summary", "json"}));
  CHECK(bytes_in(dir / "again.png") == bytes_in(dir / "b.png"));
  check_error(run_tool(dir, {"balance", "c.png", "--apply", "cast.json", "--on", "lightness", "-o",
                             "x.png"}),
              1, "cast.json: has curves of channels; leave --on lightness out");
  summary_of(run_tool(dir, {"balance", "c.png", "--on", "lightness", "--target", "60", "--save",
                            "light.json", "-o", "b.png", "--summary", "json"}));
  check_error(run_tool(dir, {"balance", "c.png", "--apply", "light.json", "-o", "x.png"}), 1,
              "light.json: has a curve of lightness; give --on lightness");
  write_picture(dir / "gray.png", spec_of(2, 1, 1), bytes_of(std::vector<std::uint8_t>{50, 90}));
  check_error(run_tool(dir, {"balance", "gray.png", "--apply", "cast.json", "-o", "x.png"}), 1,
              "has 3 curves, and gray.png has 1 channels");
  put_text(dir / "no.json", "{}");
  check_error(run_tool(dir, {"balance", "c.png", "--apply", "no.json", "-o", "x.png"}), 1,
              "no.json: is not a file of curves");
  // Curves that cannot be kept: no picture either.
  check_error(run_tool(dir, {"balance", "c.png", "--save", "no.json/c.json", "-o", "x.png", "-q"}),
              1, "no.json/c.json: cannot be written");
  CHECK_FALSE(std::filesystem::exists(dir / "x.png"));
}

TEST_CASE("balance evens out light by a blank or by a fitted surface", "[cli][balance]") {
  const TempDir dir;
  std::vector<std::uint8_t> blank, picture;
  for (int y = 0; y < 60; ++y)
    for (int x = 0; x < 90; ++x) {
      const double light =
          1 - 0.5 * (std::pow(x / 89.0 - 0.5, 2) + std::pow(y / 59.0 - 0.5, 2)) * 2;
      const auto code = [&](double part) {
        return static_cast<std::uint8_t>(
            std::lround(255 * (1.055 * std::pow(part * light, 1 / 2.4) - 0.055)));
      };
      blank.insert(blank.end(), 3, code(0.9));
      picture.insert(picture.end(), 3, code(x % 30 < 15 ? 0.6 : 0.3));
    }
  write_rgb(dir / "blank.png", 90, 60, blank);
  write_rgb(dir / "p.png", 90, 60, picture);
  for (const std::string how : {"blank.png", "fit"}) {
    CAPTURE(how);
    const json found = summary_of(run_tool(dir, {"balance", "p.png", "--flat", how, "--curve",
                                                 "none", "-o", "even.png", "--summary", "json"}));
    CHECK(found["inputs"][0]["light_evened"] == true);
    const auto even = bytes_in(dir / "even.png");
    // Along a row of one brightness, from the corner to the middle.
    const std::size_t corner = 3 * 3, middle = (30 * 90 + 33) * 3;
    CHECK(picture[middle] - picture[corner] > 30);
    CHECK(std::abs(even[middle] - even[corner]) <= (how == "fit" ? 14 : 3));
  }
  CHECK_THAT(run_tool(dir, {"balance", "p.png", "--flat", "fit", "-o", "even.png"}).out,
             Catch::Contains("median evened"));
  CHECK_THAT(run_tool(dir, {"balance", "p.png", "-o", "even.png"}).out,
             Catch::Contains("median before"));
  write_rgb(dir / "small.png", 2, 1, {9, 9, 9, 9, 9, 9});
  check_error(run_tool(dir, {"balance", "p.png", "--flat", "small.png", "-o", "x.png"}), 1,
              "small.png: is 2x1, the picture 90x60");
  check_error(run_tool(dir, {"balance", "small.png", "--flat", "fit", "-o", "x.png"}), 1,
              "do not tell how the light falls");
  CHECK_FALSE(std::filesystem::exists(dir / "x.png"));
}

TEST_CASE("balance warns of a picture of one color", "[cli][balance]") {
  const TempDir dir;
  std::vector<std::uint8_t> rgb;
  for (int i = 0; i < 100; ++i)
    rgb.insert(rgb.end(), {static_cast<std::uint8_t>(150 + i % 9), 40,
                           static_cast<std::uint8_t>(i < 70 ? 50 : 240)});
  write_rgb(dir / "red.png", 10, 10, rgb);
  const auto run = run_tool(dir, {"balance", "red.png", "-o", "b.png"});
  CHECK(run.exit_code == 0);
  CHECK_THAT(run.err,
             Catch::Contains("one color (hues") &&
                 Catch::Contains("fills 70 % of what counts, and common medians take it for a "
                                 "cast; --neutral balances on a patch that should be gray"));
}

TEST_CASE("balance gives a picture the values of another", "[cli][balance]") {
  const TempDir dir;
  // The same noise in other light: each channel bent by itself.
  std::vector<std::uint8_t> rgb = random_bytes(60 * 40 * 3, 5), lit = rgb;
  for (std::size_t i = 0; i < rgb.size(); ++i)
    lit[i] = static_cast<std::uint8_t>(
        std::lround(255 * std::pow(rgb[i] / 255.0, 0.6 + 0.4 * static_cast<double>(i % 3))));
  write_rgb(dir / "wanted.png", 60, 40, rgb);
  write_rgb(dir / "lit.png", 60, 40, lit);
  const Words like = words_of("balance lit.png --like wanted.png -o b.png --summary json");
  const json found = summary_of(run_tool(dir, with(like, {"--save", "light.json"})));
  CHECK(found["like"] == "wanted.png");
  const json& one = found["inputs"][0];
  CHECK(one["in_common_before"].get<double>() < 85);
  CHECK(one["in_common_after"].get<double>() > 98);
  for (const json& curve : one["curves"]) {
    CHECK(curve["curve"] == "table");
    CHECK(std::abs(curve["median_after"].get<double>() - curve["median_wanted"].get<double>()) < 2);
  }
  const auto after = bytes_in(dir / "b.png");
  double squares = 0;
  for (std::size_t i = 0; i < rgb.size(); ++i) squares += (after[i] - rgb[i]) * (after[i] - rgb[i]);
  CHECK(std::sqrt(squares / static_cast<double>(rgb.size())) < 1.5);
  const Outcome told = run_tool(dir, words_of("balance lit.png --like wanted.png -o b.png"));
  CHECK(told.err.empty());
  CHECK_THAT(told.out, Catch::Contains("in wanted.png\n  srgb.r   of ranks") &&
                           Catch::Matches("[^]*\n  9\\d.\\d % of its colors are those of "
                                          "wanted.png, \\d+.\\d % before\n[^]*"));
  // The curves do the same again, and a picture like itself stays as it is.
  REQUIRE(run_tool(dir, words_of("balance lit.png --apply light.json -o again.png")).exit_code ==
          0);
  CHECK(bytes_in(dir / "again.png") == after);
  REQUIRE(run_tool(dir, words_of("balance lit.png --like lit.png -o same.png")).exit_code == 0);
  CHECK(bytes_in(dir / "same.png") == lit);
  // The median alone, by a curve of light.
  summary_of(run_tool(dir, with(like, {"--curve", "power"})));
  const auto wanted = medians_of(dir, "wanted.png"), medians = medians_of(dir, "b.png");
  for (std::size_t c = 0; c < 3; ++c) CHECK(std::abs(medians[c] - wanted[c]) <= 0.5);
  // Lightness keeps the colors.
  const json on = summary_of(run_tool(dir, with(like, {"--on", "lightness"})));
  REQUIRE(on["inputs"][0]["curves"].size() == 1);
  CHECK(on["inputs"][0]["curves"][0]["channel"] == "lab.l");
}

TEST_CASE("balance tells that pictures do not hold the same", "[cli][balance]") {
  const TempDir dir;
  for (const char* name :
       {"panel-a.png", "panel-b.png", "panel-a.samples.geojson", "panel-b.samples.geojson"})
    copy_demo(dir, name);
  const std::string line = "balance panel-b.png --like panel-a.png -o b.png --figures none";
  const Outcome all = run_tool(dir, words_of(line));
  CHECK(all.exit_code == 0);
  CHECK_THAT(all.err, Catch::Matches(
                          "chalcedony: warning: panel-b.png: 6\\d % of its colors are those of "
                          "panel-a.png now, and were 8\\d % before, so the two do not hold the "
                          "same things in the same shares; count what both hold, with --within\n"));
  // Of samples of the same glass in both.
  const Outcome within = run_tool(dir, with(words_of(line), {"--within", "*.samples.geojson"}));
  CHECK(within.exit_code == 0);
  CHECK(within.err.empty());
}

TEST_CASE("balance says what it cannot do", "[cli][balance]") {
  const TempDir dir;
  write_cast(dir / "c.png");
  const std::vector<std::pair<std::vector<std::string>, std::string>> wrong{
      {{}, "balance needs -o"},
      {{"--curve", "none", "-o", "x.png"}, "nothing is left to do"},
      {{"--curve", "none", "--target", "9", "-o", "x.png"}, "--target needs a curve"},
      {{"--on", "lightness", "--curve", "power", "-o", "x.png"}, "needs --target"},
      {{"--black", "dark", "-o", "x.png"}, "'dark' is no value"},
      {{"--black", "0%", "-o", "x.png"}, "no percentile 0%"},
      {{"--dark", "c.png", "-o", "x.png"}, "--dark needs --flat"},
      {{"--flat", "fit", "--dark", "c.png", "-o", "x.png"}, "--dark goes with a blank"},
      {{"--equalize", "--target", "9", "-o", "x.png"}, "--equalize sets the whole curve"},
      {{"--apply", "c.json", "--target", "9", "-o", "x.png"}, "--apply takes the curves"},
      {{"--like", "c.png", "--target", "9", "-o", "x.png"}, "--like says what values are wanted"},
      {{"--like", "c.png", "--curve", "none", "-o", "x.png"}, "--like needs a curve"},
      {{"--like", "c.png", "--equalize", "-o", "x.png"}, "--equalize sets the whole curve"},
      {{"--apply", "c.json", "--like", "c.png", "-o", "x.png"}, "--apply takes the curves"},
      {{"--target", "255", "-o", "x.png"}, "--target"}};
  for (const auto& [options, says] : wrong) {
    check_error(run_tool(dir, with({"balance", "c.png"}, options)), 2, says);
  }
  check_error(
      run_tool(dir, {"balance", "c.png", "--black", "200", "--white", "100", "-o", "x.png"}), 1,
      "does not lie above its black point");
  check_error(run_tool(dir, {"balance", "c.png", "--black", "240", "-o", "x.png"}), 1,
              "half of what counts is black in srgb.r, and no curve moves that");
  summary_of(
      run_tool(dir, {"convert", "c.png", "--to", "lab", "-o", "lab.tif", "--summary", "json"}));
  check_error(run_tool(dir, {"balance", "lab.tif", "-o", "x.png"}), 1, "holds lab");
  check_error(run_tool(dir, {"balance", "c.png", "--like", "lab.tif", "-o", "x.png"}), 1,
              "lab.tif: holds lab");
  check_error(run_tool(dir, {"balance", "c.png", "--like", "nowhere.png", "-o", "x.png"}), 1,
              "nowhere.png: ");
  write_picture(dir / "gray.png", spec_of(4, 1, 1),
                bytes_of(std::vector<std::uint8_t>{9, 90, 120, 200}));
  check_error(run_tool(dir, {"balance", "c.png", "--like", "gray.png", "-o", "x.png"}), 1,
              "c.png: has not the channels of gray.png: gray; give a picture of the same kind, or "
              "convert one of them");
  CHECK(dir.files() == std::set<std::string>{"c.png", "gray.png", "lab.tif"});
}
