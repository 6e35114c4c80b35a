// `diff`, `similar` and `histogram --merge` at the built program.
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>
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

std::array<double, 3> lab_of(const char* css) { return css_color(css).in(spaces::kLab); }

}  // namespace

TEST_CASE("diff measures every pixel, by each formula", "[cli][diff]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 4, 1, {10, 10, 10, 200, 30, 40, 30, 60, 180, 90, 90, 90});
  write_rgb(dir / "b.png", 4, 1, {10, 10, 10, 190, 40, 40, 30, 60, 180, 250, 250, 250});
  const auto first = lab_of("rgb(200 30 40)"), second = lab_of("rgb(190 40 40)");
  const double de = ciede2000(first, second),
               gray = ciede2000(lab_of("#5a5a5a"), lab_of("#fafafa"));
  const json found = summary_of(run_tool(dir, {"diff", "a.png", "b.png", "-o", "out", "--tolerance",
                                               "1", "--summary", "json"}))["inputs"][0];
  CHECK(found["counted"] == 4);
  CHECK(found["mean"].get<double>() == Approx((de + gray) / 4).epsilon(1e-3));
  CHECK(found["largest"].get<double>() == Approx(gray).epsilon(1e-3));
  CHECK(found["largest_at"] == json::array({3, 0}));
  CHECK(found["above_tolerance"] == 2);
  CHECK(found["median"].get<double>() == Approx(0).margin(0.0101));
  PictureFile file = open_picture(dir / "out/a.difference.tif", {});
  CHECK(file.info.shape.sample == SampleType::kF32);
  const auto values = samples_of<float>(file);
  CHECK(values[0] == 0);
  CHECK(static_cast<double>(values[1]) == Approx(de).epsilon(1e-3));
  const auto lines = lines_of(dir / "out/a.difference.csv");
  CHECK_THAT(lines[0], Catch::StartsWith("to,formula,pixels,mean,"));
  CHECK_THAT(lines[1], Catch::StartsWith("b.png,ciede2000,4,"));
  CHECK(std::filesystem::exists(dir / "out/a.difference.figure.png"));
  const auto mean_by = [&](const char* formula) {
    return summary_of(run_tool(dir, {"diff", "a.png", "b.png", "--formula", formula, "--region",
                                     "1,0,1,1", "--summary", "json"}))["inputs"][0]["mean"]
        .get<double>();
  };
  CHECK(mean_by("cie76") ==
        Approx(std::hypot(first[0] - second[0], first[1] - second[1], first[2] - second[2]))
            .epsilon(1e-3));
  const auto ok1 = css_color("rgb(200 30 40)").in(spaces::kOklab),
             ok2 = css_color("rgb(190 40 40)").in(spaces::kOklab);
  CHECK(mean_by("oklab") ==
        Approx(std::hypot(ok1[0] - ok2[0], ok1[1] - ok2[1], ok1[2] - ok2[2])).epsilon(1e-3));
  const double c1 = std::hypot(first[1], first[2]), c2 = std::hypot(second[1], second[2]);
  const double h2 =
      std::pow(first[1] - second[1], 2) + std::pow(first[2] - second[2], 2) - (c1 - c2) * (c1 - c2);
  CHECK(mean_by("cie94") == Approx(std::sqrt(std::pow(first[0] - second[0], 2) +
                                             std::pow((c1 - c2) / (1 + 0.045 * c1), 2) +
                                             h2 / std::pow(1 + 0.015 * c1, 2)))
                                .epsilon(1e-3));
}

TEST_CASE("diff is the same for any number of threads, and 0 of a picture with itself",
          "[cli][diff]") {
  const TempDir dir;
  copy_demo(dir, "panel-a.png");
  copy_demo(dir, "panel-b.png");
  for (const char* threads : {"1", "4"})
    run_tool(dir, {"diff", "panel-a.png", "panel-b.png", "--threads", threads, "-o", threads,
                   "--figures", "none"});
  for (const char* file : {"/panel-a.difference.tif", "/panel-a.difference.csv"})
    CHECK(text_of_file(dir / (std::string("1") + file)) ==
          text_of_file(dir / (std::string("4") + file)));
  const json same = summary_of(
      run_tool(dir, {"diff", "panel-a.png", "panel-a.png", "--summary", "json"}))["inputs"][0];
  CHECK(same["largest"] == 0.0);
  CHECK(same["percentile_95"] == 0.0);
}

TEST_CASE("diff compares pictures of other depths and channels, in rows of any length",
          "[cli][diff]") {
  const TempDir dir;
  constexpr std::uint32_t kWidth = 9001, kHeight = 3;  // Blocks do not end where rows do
  std::vector<std::uint8_t> rgba;
  std::vector<std::uint16_t> gray;
  for (std::uint32_t i = 0; i < kWidth * kHeight; ++i) {
    const auto code = static_cast<std::uint8_t>(i % 251);
    rgba.insert(rgba.end(), {code, code, code, 255});
    gray.push_back(static_cast<std::uint16_t>(code * 257));
  }
  constexpr std::size_t kChanged = 2 * kWidth + 5000, kTransparent = kWidth + 8999;
  rgba[4 * kChanged] = 255;
  rgba[4 * kTransparent] = 255;
  rgba[4 * kTransparent + 3] = 0;
  write_picture(dir / "rgba.png", spec_of(kWidth, kHeight, 4), bytes_of(rgba));
  write_picture(dir / "gray.png", spec_of(kWidth, kHeight, 1, SampleType::kU16), bytes_of(gray));
  for (const bool turned : {false, true}) {
    const char *first = turned ? "gray" : "rgba", *second = turned ? "rgba" : "gray";
    const json found = summary_of(
        run_tool(dir, {"diff", first + std::string(".png"), second + std::string(".png"), "-o",
                       "out", "--figures", "none", "--summary", "json"}))["inputs"][0];
    CHECK(found["counted"] == kWidth * kHeight - 1);
    CHECK(found["above_tolerance"] == 1);
    CHECK(found["largest_at"] == json::array({5000, 2}));
    PictureFile file = open_picture(dir / ("out/" + std::string(first) + ".difference.tif"), {});
    const auto values = samples_of<float>(file);
    REQUIRE(values.size() == kWidth * kHeight);
    CHECK(std::isnan(values[kTransparent]));
    CHECK(double{values[kChanged]} == found["largest"].get<double>());
    CHECK(std::count_if(values.begin(), values.end(), [](float v) { return v > 0.01f; }) == 1);
  }
}

TEST_CASE("with a tolerance of 0 diff counts what differs at all", "[cli][diff]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 4, 1, {200, 0, 0, 9, 9, 9, 255, 255, 255, 0, 0, 0});
  write_rgb(dir / "b.png", 4, 1, {200, 0, 1, 9, 9, 9, 255, 255, 255, 0, 1, 0});
  for (const char* formula : {"ciede2000", "oklab"}) {
    const json found =
        summary_of(run_tool(dir, {"diff", "a.png", "b.png", "--tolerance", "0", "--formula",
                                  formula, "-o", formula, "--summary", "json"}))["inputs"][0];
    CHECK(found["above_tolerance"] == 2);
    CHECK(found["above_tolerance_percent"] == 50.0);
    CHECK(std::filesystem::file_size(dir / (std::string(formula) + "/a.difference.figure.png")) >
          5000);
  }
}

TEST_CASE("diff names the one of two pictures that is broken, and leaves nothing", "[cli][diff]") {
  const TempDir dir;
  write_rgb(dir / "whole.png", 300, 200, random_bytes(3 * 300 * 200));
  const std::string bytes = text_of_file(dir / "whole.png");
  std::ofstream(dir / "half.png", std::ios::binary) << bytes.substr(0, bytes.size() / 2);
  for (const auto& [first, second] :
       {std::pair("whole.png", "half.png"), std::pair("half.png", "whole.png")}) {
    check_error(run_tool(dir, {"diff", first, second, "-o", "out"}), 1, "half.png: ");
    check_nothing_in(dir, "out");
  }
}

TEST_CASE("diff holds each of several pictures against one, or against its own", "[cli][diff]") {
  const TempDir dir;
  std::filesystem::create_directory(dir / "before");
  const auto gray = [&](const char* name, std::uint8_t code) {
    write_rgb(dir / name, 2, 1, std::vector<std::uint8_t>(6, code));
  };
  gray("a.png", 100);
  gray("b.png", 50);
  gray("before/a.png", 100);
  gray("before/b.png", 60);
  const Words diff{"diff", "a.png", "b.png", "--formula", "cie76"};
  const json each =
      summary_of(run_tool(dir, with(diff, {"--to", "before", "-o", "out", "--summary", "json"})));
  REQUIRE(each["inputs"].size() == 2);
  CHECK(each["inputs"][0]["mean"] == 0);
  CHECK(each["inputs"][1]["second"] == "before/b.png");
  const double mean = each["inputs"][1]["mean"].get<double>();
  CHECK(mean == Approx(lab_of("#3c3c3c")[0] - lab_of("#323232")[0]).epsilon(1e-3));
  const auto rows = rows_of(dir / "out/difference.csv");
  REQUIRE(rows.size() == 2);
  CHECK(rows[1].at("picture") == "b.png");
  CHECK(rows[1].at("to") == "before/b.png");
  CHECK(std::stod(rows[1].at("mean")) == Approx(mean));
  for (const char* file : {"out/a.difference.tif", "out/b.difference.figure.png"})
    CHECK(std::filesystem::exists(dir / file));

  // The shards of it are one run, figure of all and all.
  const Words drawn = with(diff, {"--to", "before", "--figures", "svg"});
  REQUIRE(run_tool(dir, with(drawn, {"-o", "whole"})).exit_code == 0);
  CHECK_THAT(text_of_file(dir / "whole/difference.figure.svg"),
             Catch::Contains("Differences of 2 pictures, each from its own") &&
                 Catch::Contains(">b.png<") && Catch::Contains("difference by cie76") &&
                 Catch::Contains("dashed: the tolerance"));
  for (const char* shard : {"1/2", "2/2"})
    REQUIRE(run_tool(dir, with(drawn, {"--shard", shard, "-o", std::string("s") + shard[0]}))
                .exit_code == 0);
  REQUIRE(run_tool(dir, {"gather", "s1", "s2", "-o", "gathered", "-q"}).exit_code == 0);
  for (const char* file : {"/difference.csv", "/difference.figure.svg", "/b.difference.tif"})
    CHECK(text_of_file(dir / (std::string("gathered") + file)) ==
          text_of_file(dir / (std::string("whole") + file)));

  // All against one, which may be among them.
  const Outcome one = run_tool(dir, with(diff, {"--to", "b.png"}));
  CHECK_THAT(one.out, Catch::StartsWith("2 pictures compared by cie76\n") &&
                          Catch::Contains("a.png    b.png         2  ") &&
                          Catch::Contains("b.png    b.png         2   0.00 "));

  // What is done is done until either changes.
  const Words again = with(diff, {"--to", "before", "-o", "out", "--resume", "--summary", "json"});
  CHECK(summary_of(run_tool(dir, again))["unchanged"] == 2);
  gray("before/b.png", 70);
  const json later = summary_of(run_tool(dir, again));
  CHECK(later["unchanged"] == 1);
  CHECK(later["inputs"][1]["mean"].get<double>() > mean);

  gray("c.png", 10);
  write_rgb(dir / "before/b.png", 1, 1, {1, 2, 3});
  const Outcome some = run_tool(dir, with(diff, {"c.png", "--to", "before", "-o", "some"}));
  CHECK(some.exit_code == 1);
  CHECK_THAT(some.err,
             Catch::Contains("b.png: before/b.png: is 1x1, b.png is 2x1; give two pictures of one "
                             "size\n") &&
                 Catch::Contains("c.png: no file of before goes with its name"));
  CHECK(std::filesystem::exists(dir / "some/a.difference.csv"));
  CHECK_FALSE(std::filesystem::exists(dir / "some/b.difference.tif"));
  check_error(run_tool(dir, {"diff", "b.png", "--to", "before", "-o", "none"}), 1,
              "before/b.png: is 1x1, b.png is 2x1");
  check_error(run_tool(dir, with(diff, {"--to", "no.png", "-o", "none"})), 1,
              "error: no.png: no such file; check its name and folder");
  check_error(run_tool(dir, with(diff, {"-o", "none", "--resume"})), 2,
              "--resume and --shard need --to here; name what the pictures are held against");
  check_error(run_tool(dir, with(diff, {"c.png", "-o", "none"})), 2,
              "diff takes two pictures, not 3; give the two that are to be held against each "
              "other, or say with --to what each is held against");
  check_nothing_in(dir, "none");
}

TEST_CASE("diff refuses what cannot be compared, and leaves nothing", "[cli][diff]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 2, 1, {1, 2, 3, 4, 5, 6});
  write_rgb(dir / "b.png", 1, 2, {1, 2, 3, 4, 5, 6});
  check_error(run_tool(dir, {"diff", "a.png", "b.png", "-o", "out"}), 1,
              "b.png: is 1x2, a.png is 2x1");
  check_error(run_tool(dir, {"diff", "a.png", "-o", "out"}), 2, "diff takes two pictures, not 1");
  check_error(run_tool(dir, {"diff", "a.png", "a.png", "--formula", "cie77"}), 2, "--formula");
  check_nothing_in(dir, "out");
}

TEST_CASE("similar ranks pictures by their colors", "[cli][similar]") {
  const TempDir dir;
  write_rgb(dir / "query.png", 4, 1, {255, 0, 0, 255, 0, 0, 0, 0, 255, 0, 0, 255});
  write_rgb(dir / "mixed.png", 2, 1, {0, 0, 255, 255, 0, 0});
  write_rgb(dir / "red.png", 2, 1, {255, 0, 0, 255, 0, 0});
  write_rgb(dir / "green.png", 2, 1, {0, 255, 0, 0, 255, 0});
  for (const char* distance : {"overlap", "jensen-shannon", "hellinger", "transport"})
    for (const std::vector<std::string>& by :
         std::vector<std::vector<std::string>>{{"--cube", "6"},
                                               {"--joint", "srgb.r,srgb.g"},
                                               {"--channels", "srgb.r,srgb.g,srgb.b"}}) {
      std::vector<std::string> words{"similar",   "green.png",  "red.png",   "mixed.png", "--to",
                                     "query.png", "--distance", distance,    "-o",        "out",
                                     "--figures", "none",       "--summary", "json"};
      words.insert(words.end(), by.begin(), by.end());
      const json found = summary_of(run_tool(dir, words));
      INFO(distance << " " << by[0]);
      CHECK(found["ranking"][0]["file"] == "mixed.png");
      CHECK(found["ranking"][0]["distance"].get<double>() == Approx(0).margin(1e-6));
      CHECK(found["ranking"][1]["file"] == "red.png");
      CHECK(found["inputs"][0]["distance"] == found["ranking"][2]["distance"]);
    }
  const json half =
      summary_of(run_tool(dir, {"similar", "red.png", "--to", "query.png", "--distance", "overlap",
                                "-o", "out", "--summary", "json"}));
  CHECK(half["ranking"][0]["distance"] == 0.5);
  CHECK(lines_of(dir / "out/similar.csv")[1] == "1,red.png,0.5");
  CHECK(std::filesystem::exists(dir / "out/similar.figure.png"));
  // Hues lie on a circle: 350 is nearer to 10 than 100 is.
  write_rgb(dir / "h10.png", 1, 1, {255, 42, 0});
  write_rgb(dir / "h350.png", 1, 1, {255, 0, 42});
  write_rgb(dir / "h100.png", 1, 1, {85, 255, 0});
  const json hues =
      summary_of(run_tool(dir, {"similar", "h100.png", "h350.png", "--to", "h10.png", "--channels",
                                "hsv.h", "--distance", "transport", "--summary", "json"}));
  CHECK(hues["ranking"][0]["file"] == "h350.png");
  CHECK(hues["ranking"][0]["distance"].get<double>() == Approx(20.0 / 360).margin(0.02));
}

TEST_CASE("similar refuses what it cannot compare", "[cli][similar]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 1, 1, {9, 9, 9});
  check_error(run_tool(dir, {"similar", "a.png"}), 2, "similar needs --to");
  check_error(run_tool(dir, {"similar", "a.png", "--to", "no.png"}), 1, "no.png: no such file");
  check_error(run_tool(dir, {"similar", "a.png", "--to", "a.png", "--space", "gray"}), 2,
              "'gray' has one channel");
  check_error(run_tool(dir, {"similar", "a.png", "--to", "a.png", "--cube", "lab"}), 2,
              "--cube: 'lab' is not a whole number from 1 to 16");
  check_error(run_tool(dir, {"similar", "a.png", "--to", "a.png", "--bins", "8"}), 2,
              "--bins is of --joint and --channels; write --cube N for bins of a cube");
  check_error(run_tool(dir, {"similar", "a.png", "--to", "a.png", "--joint", "hsv.h"}), 2,
              "--joint takes two channels");
  check_error(
      run_tool(dir, {"similar", "a.png", "--to", "a.png", "--cube", "4", "--channels", "lab"}), 2,
      "each say what is compared");
  check_error(run_tool(dir, {"similar", "a.png", "--to", "a.png", "--channels", "file.0"}), 2,
              "file.0 has no usual range");
  check_error(run_tool(dir, {"similar", "a.png", "--to", "a.png", "--channels", "hsv.h"}), 1,
              "no counted pixel has a value to compare");
}

TEST_CASE("a joint histogram of a hue is drawn as a disc, and written as a matrix",
          "[cli][histogram]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  const Outcome run = run_tool(
      dir,
      words_of("histogram stripes.png --joint hsv.h,hsv.s --joint-bins 36,10 --disc --heat linear "
               "--matrix --figures png -o out/"));
  CHECK(run.exit_code == 0);
  for (const char* const figure : {"stripes.joint.png", "stripes.disc.figure.png"}) {
    PictureFile page = open_picture(dir / ("out/" + std::string(figure)));
    CHECK(page.info.shape.width == 1280);
    // More than paper: the heat, the circle of hues, the picture.
    const auto samples = samples_of<std::uint8_t>(page);
    std::set<std::array<std::uint8_t, 3>> colors;
    for (std::size_t i = 0; i + 2 < samples.size(); i += 3)
      colors.insert({samples[i], samples[i + 1], samples[i + 2]});
    CHECK(colors.size() > 200);
  }
  const auto rows = lines_of(dir / "out/stripes.joint-matrix.csv");
  REQUIRE(rows.size() == 37);
  CHECK(rows[0] == "hsv.h down; hsv.s across,0,10,20,30,40,50,60,70,80,90");
  std::uint64_t pixels = 0;
  for (std::size_t r = 1; r < rows.size(); ++r) {
    const auto fields = split(rows[r], ',');
    REQUIRE(fields.size() == 11);
    CHECK(std::stod(fields[0]) == 10.0 * static_cast<double>(r - 1));
    for (std::size_t c = 1; c < fields.size(); ++c) pixels += std::stoul(fields[c]);
  }
  CHECK(pixels == 180);  // all but the 20 that are gray
}

TEST_CASE("histogram tables add up to that of all pixels", "[cli][histogram][merge]") {
  const TempDir dir;
  const auto left = random_bytes(3 * 30 * 20, 1), right = random_bytes(3 * 30 * 20, 2);
  std::vector<std::uint8_t> both = left;
  both.insert(both.end(), right.begin(), right.end());
  write_rgb(dir / "left.png", 30, 20, left);
  write_rgb(dir / "right.png", 30, 20, right);
  write_rgb(dir / "both.png", 30, 40, both);
  for (const char* name : {"left.png", "right.png", "both.png"})
    run_tool(dir, {"histogram", name, "--channels", "srgb.r,hsv.h", "--joint", "hsv.h,hsv.s",
                   "--joint-bins", "12,5", "-o", "out", "--figures", "none"});
  for (const std::string kind : {"histogram", "joint"}) {
    const json merged = summary_of(
        run_tool(dir, {"histogram", "--merge", "out/left." + kind + ".csv",
                       "out/right." + kind + ".csv", "-o", "merged", "--summary", "json"}));
    CHECK(merged["merged"]["pixels"] == 1200);
    CHECK(merged["merged"]["kind"] == kind);
    CHECK(text_of_file(dir / ("merged/merged." + kind + ".csv")) ==
          text_of_file(dir / ("out/both." + kind + ".csv")));
  }
  // Tables of one name from several folders, as machines leave them, are fine.
  std::filesystem::create_directory(dir / "other");
  std::filesystem::copy(dir / "out/left.histogram.csv", dir / "other/left.histogram.csv");
  const json twice =
      summary_of(run_tool(dir, {"histogram", "--merge", "out/left.histogram.csv",
                                "other/left.histogram.csv", "-o", "twice", "--summary", "json"}));
  CHECK(twice["merged"]["pixels"] == 1200);
  std::ofstream(dir / "words.csv") << "a,b\r\n1,2\r\n";
  std::ofstream(dir / "short.csv") << "a,b\r\n1\r\n";
  std::ofstream(dir / "open.csv") << "a,\"b\r\n";
  const auto merge = [&](const char* a, const char* b) {
    return run_tool(dir, {"histogram", "--merge", a, b, "-o", "bad"});
  };
  check_error(merge("words.csv", "words.csv"), 1, "words.csv: is no table of channel or joint");
  check_error(merge("short.csv", "words.csv"), 1, "short.csv: has 1 fields in line 2");
  check_error(merge("open.csv", "words.csv"), 1, "open.csv: has a quote that does not end");
  run_tool(dir, {"histogram", "left.png", "--bins", "9", "-o", "nine", "--figures", "none"});
  check_error(merge("out/right.histogram.csv", "nine/left.histogram.csv"), 1,
              "has other bins than the first table, in line");
  check_error(run_tool(dir, {"histogram", "--merge", "words.csv", "--bins", "3"}), 2,
              "--bins means nothing here");
  check_nothing_in(dir, "bad");
}

TEST_CASE("joint all makes the three pairs of a space, matrices hold the counts",
          "[cli][histogram]") {
  const TempDir dir;
  write_rgb(dir / "p.png", 2, 1, {0, 0, 255, 255, 0, 0});
  const json found = summary_of(
      run_tool(dir, {"histogram", "p.png", "--joint", "all", "--space", "srgb", "--joint-bins",
                     "2,2", "--matrix", "-o", "out", "--figures", "none", "--summary", "json"}));
  const json& joint = found["inputs"][0]["joint"];
  REQUIRE(joint.size() == 3);
  CHECK(joint[1]["first"] == "srgb.r");
  CHECK(joint[1]["second"] == "srgb.b");
  const auto lines = lines_of(dir / "out/p.joint-matrix-2.csv");
  REQUIRE(lines.size() == 3);
  CHECK(split(lines[1], ',') == std::vector<std::string>{"0", "0", "1"});
  CHECK(split(lines[2], ',')[1] == "1");
  check_error(run_tool(dir, {"histogram", "p.png", "--matrix"}), 2,
              "--matrix is of joint histograms");
}
