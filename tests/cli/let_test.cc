// Channels that --let defines, at the built program.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr std::uint32_t kRampWidth = 40, kRampHeight = 30;

/// Four stored channels; the left half reflects more in the last than in the first.
void write_four(const std::filesystem::path& path) {
  std::vector<std::uint16_t> samples;
  const auto noise = random_bytes(kRampWidth * kRampHeight * 4);
  for (std::size_t i = 0; i < kRampWidth * kRampHeight; ++i) {
    const bool leaf = i % kRampWidth < kRampWidth / 2;
    for (std::size_t c = 0; c < 4; ++c)
      samples.push_back(static_cast<std::uint16_t>(20 * noise[4 * i + c] +
                                                   (c == 3 ? (leaf ? 40000 : 9000) : 10000)));
  }
  PictureSpec spec = spec_of(kRampWidth, kRampHeight, 4, SampleType::kU16);
  spec.alpha = true;
  write_picture(path, spec, bytes_of(samples));
}

constexpr const char* kVigor = "vigor=(file.3 - file.0) / (file.3 + file.0)";

}  // namespace

TEST_CASE("a derived channel selects what its formula selects", "[cli][let]") {
  const TempDir dir;
  write_four(dir / "leaf.tif");
  summary_of(run_tool(dir, {"mask", "leaf.tif", "--let", kVigor, "--where", "vigor > 0.3", "-o",
                            "named", "--write", "mask", "--summary", "json"}));
  summary_of(
      run_tool(dir, {"mask", "leaf.tif", "--where", "(file.3 - file.0) / (file.3 + file.0) > 0.3",
                     "-o", "written", "--write", "mask", "--summary", "json"}));
  const auto mask = bytes_in(dir / "named/leaf.mask.png");
  CHECK(mask == bytes_in(dir / "written/leaf.mask.png"));
  for (std::size_t i = 0; i < mask.size(); ++i)
    if ((mask[i] == 255) != (i % kRampWidth < kRampWidth / 2))
      FAIL("pixel " << i << " is " << +mask[i]);
}

TEST_CASE("derived channels have histograms, planes, slices and pages", "[cli][let]") {
  const TempDir dir;
  write_four(dir / "leaf.tif");
  const json histogram = summary_of(run_tool(dir, {"histogram",  "leaf.tif",
                                                   "--let",      kVigor,
                                                   "--let",      "double=2 * vigor in -2..2",
                                                   "--channels", "vigor,double",
                                                   "--bins",     "8",
                                                   "--joint",    "vigor,file.1",
                                                   "--peaks",    "2",
                                                   "-o",         "out",
                                                   "--figures",  "png",
                                                   "--summary",  "json"}));
  const auto rows = rows_of(dir / "out/leaf.histogram.csv");
  std::uint64_t counted = 0;
  for (const auto& row : rows)
    if (row.at("channel") == "double") counted += std::stoull(row.at("count"));
  CHECK(counted == kRampWidth * kRampHeight);
  const auto peaks = rows_of(dir / "out/leaf.peaks.csv");
  REQUIRE_FALSE(peaks.empty());
  CHECK_THAT(peaks[0].at("where"), Catch::Contains("vigor in "));
  CHECK(std::filesystem::file_size(dir / "out/leaf.histogram.png") > 5000);

  summary_of(run_tool(dir, {"split", "leaf.tif", "--let", kVigor, "--channels", "vigor", "--depth",
                            "float", "-o", "planes", "--summary", "json"}));
  summary_of(run_tool(dir, {"slice", "leaf.tif", "--let", kVigor, "--channel", "vigor", "--cuts",
                            "-1,0,0.3,1", "-o", "slices", "--summary", "json"}));
  const auto classes = labels_in(dir / "slices/leaf.slices.png");
  CHECK(std::count(classes.begin(), classes.end(), 3) == kRampWidth * kRampHeight / 2);
  summary_of(run_tool(dir, {"sheet", "leaf.tif", "--let", kVigor, "--channels", "vigor,lab.l", "-o",
                            "page", "--summary", "json"}));
}

TEST_CASE("inspect tells of derived channels what it tells of others", "[cli][let]") {
  const TempDir dir;
  // Left half 200, 100, 0, right half black, of which there is no ratio.
  std::vector<std::uint8_t> rgb;
  for (std::size_t i = 0; i < 200; ++i)
    for (const int value : {200, 100, 0})
      rgb.push_back(static_cast<std::uint8_t>(i % 20 < 10 ? value : 0));
  write_rgb(dir / "p.png", 20, 10, rgb);
  const Words inspect{"inspect", "p.png", "--let", "ratio=srgb.g / srgb.r in 0..4", "--at", "3,3",
                      "--at",    "13,3",  "--let", "sum=srgb.r + srgb.g",           "-o",   "out"};
  const json told = summary_of(run_tool(dir, with(inspect, {"--summary", "json"})))["inputs"][0];
  REQUIRE(told["channels"].size() == 5);
  const json &ratio = told["channels"][3], &sum = told["channels"][4];
  CHECK(ratio["channel"] == "ratio");
  CHECK(ratio["no_value"] == 100);
  CHECK(ratio["median"] == 0.5);
  CHECK(ratio["mean"] == 0.5);
  CHECK_FALSE(sum.contains("no_value"));
  CHECK(sum["mean"] == 150);
  CHECK(told["at"][0]["channels"] == json{{"ratio", 0.5}, {"sum", 300}});
  CHECK(told["at"][1]["channels"]["ratio"].is_null());
  CHECK(told["at"][0]["srgb"]["r"] == 200);
  const auto rows = rows_of(dir / "out/p.statistics.csv");
  REQUIRE(rows.size() == 5);
  CHECK(rows[3].at("no_value") == "100");
  CHECK(rows[4].at("no_value").empty());
  const std::string text = run_tool(dir, inspect).out;
  CHECK_THAT(text, Catch::Contains("  ratio: 100 pixels without a value\n") &&
                       Catch::Contains("    ratio   0.5\n    sum     300\n") &&
                       Catch::Contains("    ratio   none\n    sum     0\n"));
}

TEST_CASE("inspect looks at single channels, and tells them at points", "[cli][let]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  const auto looked = [&](const Words& more) {
    return summary_of(run_tool(
        dir, with({"inspect", "s.png", "--at", "2,2", "--summary", "json"}, more)))["inputs"][0];
  };
  const json luv = looked({"--space", "luv", "--channels", "v,gray,oklab"});
  REQUIRE(luv["channels"].size() == 5);
  CHECK(luv["channels"][0]["channel"] == "luv.v");
  const json whole = looked({"--space", "luv,gray"});
  CHECK(luv["channels"][0] == whole["channels"][2]);
  // What the color in its four spaces tells already is not told twice.
  CHECK(luv["at"][0]["channels"].size() == 5);
  CHECK_FALSE(looked({"--channels", "lab,srgb.r"})["at"][0].contains("channels"));
  CHECK_THAT(run_tool(dir, {"inspect", "s.png", "--space", "luv,gray", "--at", "2,2"}).out,
             Catch::Matches("[^]*\n    luv     l [-0-9.]+  u [-0-9.]+  v [-0-9.]+\n"
                            "    gray    [0-9.]+\n"));
  check_error(run_tool(dir, {"inspect", "s.png", "--channels", "lab.q"}), 2, "--channels");
}

TEST_CASE("a derived channel becomes a plane of a picture", "[cli][let]") {
  const TempDir dir;
  write_four(dir / "leaf.tif");
  write_rgb(dir / "base.png", kRampWidth, kRampHeight, random_bytes(kRampWidth * kRampHeight * 3));
  summary_of(run_tool(dir, {"join", "base.png", "--let", kVigor, "--plane", "r=leaf.tif:vigor",
                            "--depth", "float", "-o", "false.tif", "--summary", "json"}));
  // The range of the channel, -1 to 1, is that of the plane, 0 to 255 or as a float 0 to 1.
  const json red = summary_of(run_tool(dir, {"inspect", "false.tif", "--channels", "srgb.r",
                                             "--summary", "json"}))["inputs"][0]["channels"][0];
  const json vigor = summary_of(run_tool(dir, {"inspect", "leaf.tif", "--let", kVigor, "--channels",
                                               "vigor", "--summary", "json"}))["inputs"][0];
  for (const char* field : {"minimum", "median", "maximum"})
    CHECK(red[field].get<double>() ==
          Approx(127.5 * (1 + vigor["channels"][0][field].get<double>())).margin(1e-4));
}

TEST_CASE("models know the channels they were trained on", "[cli][let]") {
  const TempDir dir;
  write_four(dir / "leaf.tif");
  summary_of(
      run_tool(dir, {"train", "leaf.tif", "--let", kVigor, "--let", "pale=lab.l + 10 * vigor",
                     "--features", "pale,vigor", "--sample", "leaf=2,2,10,20", "--sample",
                     "soil=25,2,10,20", "-o", "learn", "--summary", "json"}));
  const json model = json::parse(text_of_file(dir / "learn/model.json"));
  CHECK(model["features"] == json{"pale", "vigor"});
  CHECK(model["let"] == json{kVigor, "pale=lab.l + 10 * vigor"});
  summary_of(run_tool(dir, {"classify", "leaf.tif", "--model", "learn/model.json", "-o", "maps",
                            "--summary", "json"}));
  const auto map = labels_in(dir / "maps/leaf.classes.png");
  CHECK(std::abs(std::count(map.begin(), map.end(), 1) - kRampWidth * kRampHeight / 2) <= 3);
  const Outcome explained =
      run_tool(dir, {"explain", "leaf.tif", "--model", "learn/model.json", "--at", "3,3"});
  CHECK(explained.exit_code == 0);
  CHECK_THAT(explained.out, Catch::Contains("vigor"));
  summary_of(run_tool(dir, {"cluster", "leaf.tif", "--let", kVigor, "--features", "vigor", "--k",
                            "2", "-o", "groups", "--summary", "json"}));
  const json groups = json::parse(text_of_file(dir / "groups/clusters.model.json"));
  CHECK(groups["let"] == json{kVigor});
}

TEST_CASE("colors without a number for a feature are in no group", "[cli][let]") {
  const TempDir dir;
  // A quarter is black, of which no ratio can be taken.
  std::vector<std::uint8_t> rgb;
  for (std::size_t i = 0; i < kRampWidth * kRampHeight; ++i) {
    const bool black = i % 4 == 0, warm = i % 4 == 1;
    for (const int value : {black ? 0 : warm ? 200 : 40, 0, black ? 0 : warm ? 30 : 210})
      rgb.push_back(static_cast<std::uint8_t>(value));
  }
  write_picture(dir / "two.png", spec_of(kRampWidth, kRampHeight, 3, SampleType::kU8),
                bytes_of(rgb));
  const std::vector<std::string> cluster{
      "cluster",    "two.png", "--let", "ratio=(srgb.r - srgb.b) / (srgb.r + srgb.b)",
      "--features", "ratio",   "--k",   "2",
      "--summary",  "json",    "-o",    "out"};
  const json drawn = summary_of(run_tool(dir, cluster))["inputs"][0];
  CHECK(drawn["counted"] == kRampWidth * kRampHeight);
  CHECK(drawn["unclassified"] == kRampWidth * kRampHeight / 4);
  CHECK(drawn["classes"][0]["pixels"] == kRampWidth * kRampHeight / 2);
  const auto labels = labels_in(dir / "out/two.clusters.png");
  for (std::size_t i = 0; i < labels.size(); i += 4) CHECK(labels[i] == 0);
  // Told by the colors alone, without a map.
  std::vector<std::string> only_model = cluster;
  only_model.insert(only_model.end(), {"--write", "model", "--figures", "none"});
  const json told = summary_of(run_tool(dir, only_model))["inputs"][0];
  CHECK(told["unclassified"] == drawn["unclassified"]);
  CHECK(told["counted"] == drawn["counted"]);
}

TEST_CASE("a mistake in --let is wrong usage, and nothing is written", "[cli][let]") {
  const TempDir dir;
  write_four(dir / "leaf.tif");
  const auto mask_with = [&](const std::string& definition) {
    return run_tool(
        dir, {"mask", "leaf.tif", "--let", definition, "--where", "vigor > 0.3", "-o", "out"});
  };
  check_error(mask_with("vigor=file.3 - "), 2,
              "--let: formula of 'vigor', character 9: expected a channel or a number, found the "
              "end; as in \"warmth=");
  check_error(mask_with("vigor=file.3"), 2, "nothing says which values 'vigor' can have");
  check_error(mask_with("vigour=lab.a"), 2, "a channel, such as 'vigour'");
  check_error(mask_with("vigor=file.9 / file.0"), 1, "there is no channel file.9");
  check_nothing_in(dir, "out");
}

TEST_CASE("a recipe and the record of a run keep derived channels", "[cli][let]") {
  const TempDir dir;
  write_four(dir / "leaf.tif");
  put_text(dir / "r.yaml",
           "chalcedony: recipe\n"
           "steps:\n"
           "  - name: pick\n"
           "    command: mask\n"
           "    files: [leaf.tif]\n"
           "    options: {let: [\"" +
               std::string(kVigor) +
               "\", \"twice=2 * vigor\"], where: \"twice > 0.6\", write: mask}\n");
  summary_of(run_tool(dir, {"run", "r.yaml", "-o", "out", "--summary", "json"}));
  const auto mask = bytes_in(dir / "out/pick/leaf.mask.png");
  CHECK(std::count(mask.begin(), mask.end(), 255) == kRampWidth * kRampHeight / 2);
  summary_of(run_tool(dir, {"run", "out/pick/how.json", "-o", "again", "--summary", "json"}));
  CHECK(bytes_in(dir / "again/leaf.mask.png") == mask);
}
