// Pictures with more channels than a color, at the built program.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr std::uint32_t kSceneWidth = 12, kSceneHeight = 10;

/// Sample c of pixel i of a made-up picture of six channels.
std::uint16_t sample_of(std::size_t i, std::size_t c) {
  return static_cast<std::uint16_t>(10000 * c + 257 * (i % 35));
}

void write_six(const std::filesystem::path& path) {
  std::vector<std::uint16_t> samples;
  for (std::size_t i = 0; i < kSceneWidth * kSceneHeight; ++i)
    for (std::size_t c = 0; c < 6; ++c) samples.push_back(sample_of(i, c));
  write_picture(path, spec_of(kSceneWidth, kSceneHeight, 6, SampleType::kU16), bytes_of(samples));
}

constexpr const char* kWhichColor =
    "six.tif: has 6 channels, and nothing says which are red, green and blue; say so with --bands";

}  // namespace

TEST_CASE("stored channels of a picture with many can be looked at", "[cli][bands]") {
  const TempDir dir;
  write_six(dir / "six.tif");
  const json facts =
      summary_of(run_tool(dir, {"inspect", "six.tif", "--summary", "json"}))["inputs"][0];
  CHECK(facts["layout"] == "6 channels");
  REQUIRE(facts["channels"].size() == 6);
  for (std::size_t c = 0; c < 6; ++c) {
    CHECK(facts["channels"][c]["channel"] == "file." + std::to_string(c));
    CHECK(facts["channels"][c]["minimum"] == 10000 * c);
    CHECK(facts["channels"][c]["maximum"] == 10000 * c + 257 * 34);
  }
  // A point has the values that are stored, and no color.
  const Outcome point = run_tool(dir, {"inspect", "six.tif", "--at", "7,3"});
  CHECK(point.exit_code == 0);
  std::string stored = "  pixel 7,3\n";
  for (std::size_t c = 0; c < 6; ++c)
    stored += "    file." + std::to_string(c) + "  " +
              std::to_string(sample_of(3 * kSceneWidth + 7, c)) + "\n";
  CHECK_THAT(point.out, Catch::EndsWith(stored));
  summary_of(run_tool(dir, {"histogram", "six.tif", "--channels", "file.5,file.0", "--bins", "4",
                            "-o", "out", "--figures", "none", "--summary", "json"}));
  const auto rows = rows_of(dir / "out/six.histogram.csv");
  CHECK(rows[3].at("channel") == "file.5");
  CHECK(rows[3].at("count") == "120");  // 50,000 and more, of 65,536 in four bins
  summary_of(run_tool(dir, {"mask", "six.tif", "--where", "file.4 - file.1 > 29000", "-o", "out",
                            "--write", "mask,figure", "--summary", "json"}));
  const auto mask = bytes_in(dir / "out/six.mask.png");
  CHECK(std::count(mask.begin(), mask.end(), 255) == 120);
  const json split =
      summary_of(run_tool(dir, {"split", "six.tif", "-o", "planes", "--summary", "json"}));
  CHECK(split["outputs"].size() == 6);
}

TEST_CASE("a color is made of the channels that --bands names", "[cli][bands]") {
  const TempDir dir;
  write_six(dir / "six.tif");
  for (const char* bands : {"5,3,1", "file.5, file.3, file.1"}) {
    summary_of(run_tool(
        dir, {"convert", "six.tif", "--bands", bands, "-o", "c.png", "--summary", "json"}));
    PictureFile file = open_picture(dir / "c.png");
    REQUIRE(file.info.shape == RasterShape{kSceneWidth, kSceneHeight, 3, SampleType::kU16});
    const auto samples = samples_of<std::uint16_t>(file);
    bool right = true;
    for (std::size_t i = 0; i < kSceneWidth * kSceneHeight; ++i)
      for (std::size_t c = 0; c < 3; ++c)
        right = right && samples[3 * i + c] == sample_of(i, 5 - 2 * c);
    CHECK(right);
  }
  const json mask = summary_of(
      run_tool(dir, {"mask", "six.tif", "--bands", "5,3,1", "--where",
                     "srgb.r > 190 and file.0 >= 257", "--summary", "json"}))["inputs"][0];
  CHECK(mask["selected"] == 120 - 4);  // every 35th pixel of 120 has 0 in file.0
  // What is written of the rows keeps the color alone.
  for (const Outcome& run : {run_tool(dir, {"reframe", "six.tif", "--bands", "5,3,1", "--crop",
                                            "2,3,4,5", "-o", "r.tif"}),
                             run_tool(dir, {"smooth", "six.tif", "--bands", "5,3,1", "--filter",
                                            "mean", "--radius", "1", "-o", "s.tif"})}) {
    INFO(run.err);
    CHECK(run.exit_code == 0);
  }
  PictureFile cropped = open_picture(dir / "r.tif");
  CHECK(cropped.info.shape == RasterShape{4, 5, 3, SampleType::kU16});
  CHECK(samples_of<std::uint16_t>(cropped)[2] == sample_of(3 * kSceneWidth + 2, 1));
  // Of any picture with so many channels.
  write_stripes(dir / "s.png");
  summary_of(
      run_tool(dir, {"convert", "s.png", "--bands", "2,1,0", "-o", "t.png", "--summary", "json"}));
  CHECK(bytes_in(dir / "t.png")[0] == bytes_in(dir / "s.png")[2]);
}

TEST_CASE("models of stored channels learn from many", "[cli][bands]") {
  const TempDir dir;
  write_six(dir / "six.tif");
  summary_of(run_tool(
      dir, {"train", "six.tif", "--sample", "low=0,0,5,1", "--sample", "high=6,0,5,1", "--features",
            "file.2,file.5", "-o", "out", "--figures", "none", "--summary", "json"}));
  const json map = summary_of(run_tool(dir, {"classify", "six.tif", "--model", "out/model.json",
                                             "-o", "out", "--summary", "json"}))["inputs"][0];
  CHECK(map["classes"][0]["pixels"].get<int>() + map["classes"][1]["pixels"].get<int>() == 120);
  CHECK(bytes_in(dir / "out/six.classes.png").size() > 0);
}

TEST_CASE("what needs a color says so, and what bands cannot be", "[cli][bands]") {
  const TempDir dir;
  write_six(dir / "six.tif");
  write_stripes(dir / "s.png");
  const std::vector<std::vector<std::string>> need_color{
      {"histogram", "six.tif", "--channels", "srgb", "-o", "out"},
      {"convert", "six.tif", "-o", "out/"},
      {"reframe", "six.tif", "--scale", "0.5", "-o", "out/"},
      {"smooth", "six.tif", "--filter", "mean", "--radius", "1", "-o", "out/"},
      {"balance", "six.tif", "-o", "out/"},
      {"mask", "six.tif", "--where", "hsv.s > 4", "-o", "out"},
      {"inspect", "six.tif", "--space", "lab"},
      {"palette", "six.tif", "-o", "out"},
      {"cluster", "six.tif", "--k", "2", "-o", "out"}};
  for (const auto& words : need_color) {
    INFO(words[0]);
    check_error(run_tool(dir, words), 1, kWhichColor);
    std::error_code error;
    const bool none = !exists(dir / "out") || std::filesystem::is_empty(dir / "out", error);
    CHECK(none);
  }
  check_error(run_tool(dir, {"inspect", "six.tif", "--bands", "1,2,6"}), 1,
              "six.tif: --bands: there is no channel file.6, the picture has 6");
  check_error(run_tool(dir, {"inspect", "s.png", "--bands", "3,2,1"}), 1,
              "--bands: there is no channel file.3, the picture has 3");
  check_error(run_tool(dir, {"inspect", "six.tif", "--bands", "1,2"}), 2,
              "--bands: '1,2' does not name three channels");
  check_error(run_tool(dir, {"inspect", "six.tif", "--bands", "r,g,b"}), 2,
              "--bands: 'r' is not a whole number");
}
