// Drives `classify --suggest` at the built program, and training with what it suggests.
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

/// Four stripes of 20 columns, with grain: red and blue, which are sampled, and pink and green.
void write_half_known(const TempDir& dir) {
  constexpr std::uint8_t kStripes[4][3] = {
      {200, 30, 30}, {30, 40, 190}, {230, 120, 150}, {40, 170, 60}};
  std::vector<std::uint8_t> rgb;
  for (unsigned y = 0; y < 60; ++y)
    for (unsigned x = 0; x < 80; ++x)
      for (const std::uint8_t code : kStripes[x / 20])
        rgb.push_back(static_cast<std::uint8_t>(code + (x * 7 + y * 3) % 5));
  write_rgb(dir / "s.png", 80, 60, rgb);
}

const std::vector<std::string> kTrainHalf{"train",         "s.png",    "--sample",
                                          "red=2,2,16,50", "--sample", "blue=22,2,16,50"};
const std::vector<std::string> kSuggest{"classify",       "s.png",     "--model",
                                        "out/model.json", "--suggest", "4"};

}  // namespace

TEST_CASE("samples are suggested for what the model does not know", "[cli][classify]") {
  const TempDir dir;
  write_half_known(dir);
  REQUIRE(run_tool(dir, with(kTrainHalf, {"-o", "out"})).exit_code == 0);
  const json picture = summary_of(run_tool(
      dir, with(kSuggest, {"-o", "out", "--figures", "svg", "--summary", "json"})))["inputs"][0];
  // The two unknown stripes, and nothing of the known ones.
  CHECK(picture["doubtful"] == 2 * 20 * 60);
  CHECK(picture["doubtful_percent"] == 50);
  REQUIRE(picture["suggested"].size() == 2);
  CHECK(picture["suggested"][0]["pixels"] == 20 * 60);
  CHECK(picture["suggested"][0]["percent"] == 25);
  CHECK(picture["suggested"][0]["guess"] == "red");
  const double x = picture["suggested"][0]["x"].get<double>();
  CHECK(x > 40);
  CHECK(x < 60);
  const json samples = json::parse(text_of_file(dir / "out/s.suggested.geojson"));
  CHECK(samples["width"] == 80);
  REQUIRE(samples["features"].size() == 2);
  CHECK(samples["features"][0]["properties"]["class"] == "red?");
  const auto rows = rows_of(dir / "out/s.suggested.csv");
  REQUIRE(rows.size() == 2);
  CHECK(rows[0].at("guess") == "red");
  CHECK(rows[1].at("number") == "2");
  CHECK(rows[0].at("side") == "2");
  CHECK_THAT(rows[0].at("color"), Catch::StartsWith("#e8"));  // pink, with its grain
  CHECK(rows[1].at("pixels") == "1200");
  CHECK(std::stod(rows[1].at("percent")) == 25);
  const std::string figure = text_of_file(dir / "out/s.suggested.figure.svg");
  CHECK_THAT(figure, Catch::Contains("Where samples would help: s.png") && Catch::Contains("red?"));
  CHECK_THAT(run_tool(dir, with(kSuggest, {"-o", "out"})).out,
             Catch::Contains("then train with those whose guesses are right, as --from "
                             "out/model.json --samples out/s.suggested.geojson:1,2=OTHER-CLASS"));
  const Outcome text = run_tool(dir, with(kSuggest, {"--figures", "none"}));
  CHECK_THAT(text.out, !Catch::Contains("then train"));
  CHECK_THAT(text.out, Catch::Contains("50 % of pixels are doubtful; where samples would help"));
  CHECK_THAT(text.out, Catch::Contains("25.00 %"));
  // The same with any number of threads, and without the picture itself being looked up by color.
  for (const char* threads : {"1", "5"}) {
    REQUIRE(run_tool(dir, with(kSuggest, {"-o", threads, "--threads", threads})).exit_code == 0);
    CHECK(text_of_file(dir / threads / "s.suggested.geojson") ==
          text_of_file(dir / "out/s.suggested.geojson"));
  }
}

TEST_CASE("checked guesses are trained with, others are left out", "[cli][classify][train]") {
  const TempDir dir;
  write_half_known(dir);
  REQUIRE(run_tool(dir, with(kTrainHalf, {"-o", "out"})).exit_code == 0);
  REQUIRE(run_tool(dir, with(kSuggest, {"-o", "out"})).exit_code == 0);
  const std::vector<std::string> again =
      with(kTrainHalf, {"--samples", "out/s.suggested.geojson", "--figures", "none"});
  const Outcome unchecked = run_tool(dir, with(again, {"-o", "unchecked"}));
  CHECK(unchecked.exit_code == 1);
  CHECK_THAT(unchecked.err,
             Catch::Contains("out/s.suggested.geojson: all of its samples are guesses that are not "
                             "checked; say behind the file which are right, as in --samples "
                             "FILE:1,3,8=lead"));
  CHECK(dir.files().count("unchecked/model.json") == 0);
  json half = json::parse(text_of_file(dir / "out/s.suggested.geojson"));
  half["features"][1]["properties"]["class"] = "green";
  put_text(dir / "half.geojson", half.dump());
  const Outcome half_checked =
      run_tool(dir, with(kTrainHalf, {"--samples", "half.geojson", "-o", "half"}));
  CHECK(half_checked.exit_code == 0);
  CHECK_THAT(half_checked.err, Catch::Contains("half.geojson: 1 sample is a guess that is not "
                                               "checked, and left out; say behind the file"));
  CHECK(json::parse(text_of_file(dir / "half/model.json"))["classes"].size() == 3);
  // Named behind the file, or in it.
  const auto check_in = [&](const std::string& list, const char* folder) {
    return run_tool(dir, with(kTrainHalf, {"--samples", "out/s.suggested.geojson:" + list,
                                           "--figures", "none", "-o", folder}));
  };
  const Outcome named = check_in("1=pink,2=green", "named");
  CHECK(named.exit_code == 0);
  CHECK(named.err.empty());
  json samples = json::parse(text_of_file(dir / "out/s.suggested.geojson"));
  for (const char* wrong : {"3", "0", "1,1", "x", "2="})
    CHECK(check_in(wrong, "wrong").exit_code != 0);
  CHECK_THAT(check_in("3", "wrong").err,
             Catch::Contains("out/s.suggested.geojson: there is no sample 3; its numbers go up to "
                             "2"));
  CHECK_THAT(check_in("1,x", "wrong").err,
             Catch::Contains("--samples: 'x' is no sample that was checked; write it as in "
                             "1,3,8=lead, or all"));
  CHECK_THAT(run_tool(dir, with(kTrainHalf, {"--samples", "out/s.suggested.geojson:1", "--samples",
                                             "out/s.suggested.geojson:2", "-o", "wrong"}))
                 .err,
             Catch::Contains("--samples: out/s.suggested.geojson is given twice; name all samples "
                             "that were checked behind it once"));
  CHECK(dir.files().count("wrong/model.json") == 0);
  samples["features"][0]["properties"]["class"] = "pink";
  samples["features"][0]["properties"].erase("color");
  samples["features"][1]["properties"]["class"] = "green";
  samples["features"][1]["properties"].erase("color");
  put_text(dir / "out/s.suggested.geojson", samples.dump());
  const Outcome checked = run_tool(dir, with(again, {"-o", "out"}));
  CHECK(checked.exit_code == 0);
  CHECK(checked.err.empty());
  CHECK(json::parse(text_of_file(dir / "named/model.json"))["classes"] ==
        json::parse(text_of_file(dir / "out/model.json"))["classes"]);
  // What the run was made of.
  const std::string how = text_of_file(dir / "named/how.json");
  CHECK_THAT(how, Catch::Contains("\"file\": \"out/s.suggested.geojson\"") ||
                      Catch::Contains("\"file\":\"out/s.suggested.geojson\""));
  const json picture =
      summary_of(run_tool(dir, with(kSuggest, {"-o", "next", "--summary", "json"})))["inputs"][0];
  CHECK(picture["classes"].size() == 4);
  CHECK(picture["classes"][2]["pixels"] == 20 * 60);
  CHECK(picture["doubtful_percent"].get<double>() < 25);
}

TEST_CASE("a model is trained again with its own samples and more", "[cli][classify][train]") {
  const TempDir dir;
  write_half_known(dir);
  REQUIRE(run_tool(dir, with(kTrainHalf, {"-o", "out"})).exit_code == 0);
  REQUIRE(run_tool(dir, with(kSuggest, {"-o", "out"})).exit_code == 0);
  // By name: those of the model come first.
  const auto classes_of = [&](const char* model) {
    std::map<std::string, json> means;
    const json read = json::parse(text_of_file(dir / model));
    for (const json& c : read["classes"])
      means[c["name"].get<std::string>()] = {c["count"], c["mean"]};
    return means;
  };
  REQUIRE(run_tool(dir, with(kTrainHalf,
                             {"--samples", "out/s.suggested.geojson:1=pink,2=green", "-o", "all"}))
              .exit_code == 0);
  const Outcome more = run_tool(dir, {"train", "s.png", "--from", "out/model.json", "--samples",
                                      "out/s.suggested.geojson:1=pink,2=green", "-o", "more"});
  CHECK(more.exit_code == 0);
  CHECK(more.err.empty());
  CHECK_THAT(more.out, Catch::StartsWith(
                           "s.png: 4 sample regions from out/model.json, out/s.suggested.geojson"));
  CHECK(classes_of("more/model.json") == classes_of("all/model.json"));
  REQUIRE(run_tool(dir, {"train", "s.png", "--from", "more/model.json", "-o", "again"}).exit_code ==
          0);
  CHECK(classes_of("again/model.json") == classes_of("all/model.json"));
  // Another picture brings the file that is called after it.
  write_rgb(dir / "t.png", 4, 4, std::vector<std::uint8_t>(48, 90));
  put_text(
      dir / "t.geojson",
      R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":{"class":"gray"},
               "geometry":{"type":"Point","coordinates":[1.5,1.5]}}]})");
  REQUIRE(run_tool(dir, {"train", "s.png", "t.png", "--from", "more/model.json", "--samples",
                         "t.geojson", "-o", "two"})
              .exit_code == 0);
  CHECK(classes_of("two/model.json").size() == 5);
}

TEST_CASE("samples of a model that do not fit are refused", "[cli][train]") {
  const TempDir dir;
  write_half_known(dir);
  REQUIRE(run_tool(dir, with(kTrainHalf, {"-o", "out"})).exit_code == 0);
  write_rgb(dir / "t.png", 4, 4, std::vector<std::uint8_t>(48, 90));
  const auto refused = [&](std::vector<std::string> inputs, const char* message) {
    inputs.insert(inputs.begin(), "train");
    const Outcome run = run_tool(dir, with(inputs, {"-o", "no"}));
    CHECK(run.exit_code == 1);
    CHECK_THAT(run.err, Catch::Contains(message));
    CHECK(dir.files().count("no/model.json") == 0);
  };
  refused({"t.png", "--from", "out/model.json"},
          "out/model.json: was trained on s.png, which is none of the inputs; give that picture "
          "too");
  refused({"s.png", "t.png", "--from", "out/model.json"},
          "t.png: has no samples; give a --samples that is called after it");
  REQUIRE(run_tool(dir, {"cluster", "s.png", "--k", "2", "-o", "groups"}).exit_code == 0);
  refused({"s.png", "--from", "groups/clusters.model.json"},
          "groups/clusters.model.json: knows no samples that it was trained with; give a model "
          "that train wrote from sample regions");
  std::filesystem::remove(dir / "s.png");
  std::filesystem::copy_file(dir / "t.png", dir / "s.png");
  refused({"s.png", "--from", "out/model.json"},
          "its samples were drawn on a picture of 80x60, this one is 4x4; give the picture they "
          "belong to, or add --rescale-samples");
}

TEST_CASE("of several pictures the places to check first are told", "[cli][classify]") {
  const TempDir dir;
  write_half_known(dir);
  std::vector<std::uint8_t> pink;
  for (unsigned pixel = 0; pixel < 40 * 60; ++pixel) pink.insert(pink.end(), {232, 122, 152});
  write_rgb(dir / "t.png", 40, 60, pink);
  REQUIRE(run_tool(dir, with(kTrainHalf, {"-o", "out"})).exit_code == 0);
  const std::vector<std::string> both{"classify", "s.png",          "t.png",
                                      "--model",  "out/model.json", "--suggest",
                                      "4",        "--figures",      "svg"};
  const json summary = summary_of(run_tool(dir, with(both, {"-o", "out", "--summary", "json"})));
  // The pink of t stands for that of s too.
  const json& first = summary["check_first"];
  REQUIRE(first.size() == 2);
  CHECK(first[0]["file"] == "t.png");
  CHECK(first[0]["pixels"] == 40 * 60 + 20 * 60);
  CHECK(first[0]["percent"] == 50);
  CHECK(first[1]["file"] == "s.png");
  CHECK(first[1]["percent"].get<double>() == Approx(100.0 / 6));
  const auto rows = rows_of(dir / "out/suggested.csv");
  REQUIRE(rows.size() == 3);
  CHECK(rows[0].at("check") == "1");
  CHECK(rows[0].at("pixels_in_all") == "3600");
  CHECK(rows[1].at("like") == "1");
  CHECK(rows[1].at("picture") == "s.png");
  CHECK(rows[2].at("check") == "2");
  CHECK_THAT(text_of_file(dir / "out/suggested.figure.svg"),
             Catch::Contains("Where samples would help in 2 pictures") &&
                 Catch::Contains("t 1  50.0 %") && Catch::Contains("red?"));
  const Outcome text = run_tool(dir, both);
  CHECK_THAT(text.out,
             Catch::Contains("Places to check first, with what they stand for in all pictures") &&
                 Catch::Contains("t.png         1    red     50.00 %"));
  // Pictures that were done before have their say, if not their close-ups when they are gone.
  const json resumed =
      summary_of(run_tool(dir, with(both, {"-o", "out", "--resume", "--summary", "json"})));
  CHECK(resumed["unchanged"] == 2);
  CHECK(resumed["check_first"] == first);
  // Parts are put together: their tables, not their figures.
  for (const char* part : {"1/2", "2/2"})
    REQUIRE(run_tool(dir, with(both, {"-o", std::string("part-") + part[0], "--shard", part}))
                .exit_code == 0);
  REQUIRE(run_tool(dir, {"gather", "part-1", "part-2", "-o", "all"}).exit_code == 0);
  CHECK(text_of_file(dir / "all/suggested.csv") == text_of_file(dir / "out/suggested.csv"));
}

TEST_CASE("where nothing is doubtful no samples are suggested", "[cli][classify]") {
  const TempDir dir;
  write_half_known(dir);
  REQUIRE(run_tool(dir, with(kTrainHalf, {"-o", "out"})).exit_code == 0);
  const Outcome run = run_tool(dir, with(kSuggest, {"--region", "0,0,40,60", "-o", "known"}));
  REQUIRE(run.exit_code == 0);
  CHECK_THAT(run.out,
             Catch::Contains("of pixels are doubtful; no place stands for enough of them to "
                             "sample it"));
  CHECK(dir.files().count("known/s.suggested.geojson") == 0);
  CHECK(dir.files().count("known/s.suggested.figure.png") == 0);
  for (const char* number : {"0", "101", "many"}) {
    const Outcome wrong = run_tool(dir, {"classify", "s.png", "--model", "out/model.json",
                                         "--suggest", number, "-o", "wrong"});
    CHECK(wrong.exit_code == 2);
    CHECK_THAT(wrong.err, Catch::Contains("--suggest"));
  }
  const Outcome without = run_tool(dir, {"classify", "s.png", "--model", "out/model.json",
                                         "--write", "suggested", "-o", "wrong"});
  CHECK(without.exit_code == 2);
  CHECK(dir.files().count("wrong") == 0);
}
