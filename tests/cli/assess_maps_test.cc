// Drives `chalcedony assess` on several maps: of several pictures, and of one by several methods.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "tests/support/glass_maps.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

TEST_CASE("assess holds two maps against each other", "[cli][assess]") {
  const TempDir dir;
  write_tiny(dir);
  write_glass(dir / "u.png", 5, {1, 1, 2, 2, 1, 2, 1, 1, 0, 1});
  const json v = summary_of(run_tool(
      dir, with(kTiny, {"--versus", "u.png", "--summary", "json"})))["inputs"][0]["versus"][0];
  CHECK(v["file"] == "u.png");
  // By hand: only the first is right on pixels 2 and 6, only the second on 3, 4 and 7.
  CHECK(v["only_first"] == 2);
  CHECK(v["only_this"] == 3);
  CHECK(v["mcnemar"]["p_adjusted"] == v["mcnemar"]["p"]);
  CHECK(v["mcnemar"]["statistic"].get<double>() == Approx(0.2));
  CHECK(v["overall"].get<double>() == Approx(6.0 / 9));
}

TEST_CASE("where which of two maps is right is painted and counted", "[cli][assess]") {
  const TempDir dir;
  write_tiny(dir);
  write_glass(dir / "u.png", 5, {1, 1, 2, 2, 1, 2, 1, 1, 0, 1});
  const std::vector<std::string> call = with(kTiny, {"--versus", "u.png", "-o", "out"});
  const json p =
      summary_of(run_tool(dir, with(call, {"--figures", "svg", "--summary", "json"})))["inputs"][0];
  // By hand, as above; neither is right on pixel 8.
  CHECK(
      p["right_in"] ==
      json{{"all", 3}, {"first_and_some", 0}, {"only_first", 2}, {"only_others", 3}, {"none", 1}});
  CHECK(p["classes"][1]["right_in"]["none"] == 1);
  CHECK(lines_of(dir / "out/versus.csv") ==
        std::vector<std::string>{"class,pixels,all,first_and_some,only_first,only_others,none",
                                 "ruby,5,2,0,1,2,0", "lead,4,1,0,1,1,1"});
  ReadOptions indices;
  indices.palette_indices = true;
  PictureFile right = open_picture(dir / "out/t.versus.png", indices);
  CHECK(samples_of<std::uint8_t>(right) == std::vector<std::uint8_t>{1, 1, 3, 4, 4, 1, 3, 4, 5, 0});
  REQUIRE(right.facts.legend.size() == 4);
  CHECK(right.facts.legend[1].name == "only the first right");
  CHECK(right.facts.legend[3].name == "neither right");
  const std::string figure = text_of_file(dir / "out/versus.figure.svg");
  CHECK_THAT(figure, Catch::Contains("t.classes.png and another map") &&
                         Catch::Contains("only the second right") && Catch::Contains("33.3"));
  const Outcome text = run_tool(dir, with(call, {"--figures", "none"}));
  CHECK_THAT(text.out, Catch::Contains("both are right on 33.3 %, neither on 11.1 %; worst for "
                                       "lead: 25.0 %\n"));
}

TEST_CASE("which maps are right is painted alone, of the assessed pixels", "[cli][assess]") {
  const TempDir dir;
  write_tiny(dir);
  write_glass(dir / "u.png", 5, {1, 1, 2, 2, 1, 2, 1, 1, 0, 1});
  const Outcome run = run_tool(dir, with(kTiny, {"--versus", "u.png", "--region", "0,0,5,1",
                                                 "--write", "versus", "-o", "out"}));
  REQUIRE(run.exit_code == 0);
  ReadOptions indices;
  indices.palette_indices = true;
  PictureFile right = open_picture(dir / "out/t.versus.png", indices);
  CHECK(samples_of<std::uint8_t>(right) == std::vector<std::uint8_t>{1, 1, 3, 4, 4, 0, 0, 0, 0, 0});
  CHECK(lines_of(dir / "out/versus.csv")[2] == "lead,1,0,0,0,1,0");
  CHECK(dir.files().count("out/t.errors.png") == 0);
  const Outcome none = run_tool(dir, with(kTiny, {"--write", "versus", "-o", "none"}));
  CHECK(none.exit_code == 2);
  CHECK_THAT(none.err, Catch::Contains("versus"));
  CHECK(dir.files().count("none") == 0);
}

namespace {

/// Two maps with references of their own: 3 1 / 1 2 / 1 1, and 4 0 / 2 3 of another size.
void write_pair(const TempDir& dir) {
  for (const char* folder : {"maps", "truth"}) std::filesystem::create_directory(dir / folder);
  write_glass(dir / "maps/a.classes.png", 5, kTinyMap);
  write_glass(dir / "truth/a.truth.png", 5, kTinyTruth);
  write_glass(dir / "maps/b.classes.png", 3, {1, 1, 1, 1, 2, 2, 2, 2, 2});
  // The other way round: a class is known by its name.
  write_glass(dir / "truth/b.truth.png", 3, {2, 2, 2, 2, 2, 2, 1, 1, 1},
              {{1, "lead", "#3c3d40"}, {2, "ruby", "#a01c2e"}});
}

const std::vector<std::string> kPair{"assess", "maps", "--reference", "truth"};

}  // namespace

TEST_CASE("several maps are judged one by one and together", "[cli][assess]") {
  const TempDir dir;
  write_pair(dir);
  const Outcome run = run_tool(dir, with(kPair, {"-o", "out", "--summary", "json"}));
  const json summary = summary_of(run);
  REQUIRE(summary["inputs"].size() == 2);
  CHECK(summary["inputs"][0]["matrix"] == json{{3, 1}, {1, 2}, {1, 1}});
  CHECK(summary["inputs"][1]["matrix"] == json{{4, 0}, {2, 3}, {0, 0}});
  CHECK(summary["inputs"][1]["against"] == "truth/b.truth.png");
  const json& all = summary["together"];
  CHECK(all["maps"] == 2);
  CHECK(all["against"] == "truth");
  CHECK(all["matrix"] == json{{7, 1}, {3, 5}, {1, 1}});
  CHECK(all["overall"].get<double>() == Approx(12.0 / 18));
  CHECK(all["excluded"] == json{{"unlabelled", 1}});
  // 10 pixels of the first count as mapped, 9 of the second.
  CHECK(all["classes"][0]["mapped_share"].get<double>() == Approx((5.0 + 4) / 19));
  // Residuals 5 - 6 and 7 - 6, so a standard error of sqrt(2 * 2) / 18.
  CHECK(all["between_maps"]["standard_error"].get<double>() == Approx(2.0 / 18));
  CHECK(all["between_maps"]["overall_low"] == 0);
  CHECK(rows_of(dir / "out/matrix.csv")[0].at("reference_ruby") == "7");
  const auto maps = rows_of(dir / "out/maps.csv");
  REQUIRE(maps.size() == 2);
  CHECK(maps[0].at("map") == "maps/a.classes.png");
  CHECK(maps[0].at("reference") == "truth/a.truth.png");
  CHECK(maps[0].at("right") == "5");
  CHECK(maps[1].at("assessed") == "9");
  CHECK(std::stod(maps[1].at("users_ruby")) == 1);
  CHECK(std::stod(maps[1].at("producers_ruby")) == Approx(4.0 / 6));
  json file = json::parse(text_of_file(dir / "out/accuracy.json"));
  CHECK(file["each"] == summary["inputs"]);
  file.erase("each");
  CHECK(file == all);
  CHECK(summary["outputs"][0] == "out/a.errors.png");
  for (const char* name : {"a.errors.png", "b.errors.png", "a.errors.figure.png",
                           "b.errors.figure.png", "maps.figure.png", "matrix.figure.png"})
    CHECK(std::filesystem::exists(dir / ("out/" + std::string(name))));
  // Figures of the maps beside them are no maps.
  std::filesystem::copy_file(dir / "out/matrix.figure.png", dir / "maps/a.classes.figure.png");
  CHECK(summary_of(run_tool(dir, with(kPair, {"--summary", "json"})))["inputs"].size() == 2);
  // Nor are pictures that say how right they are.
  std::filesystem::create_directory(dir / "others");
  for (const char* name : {"a", "b"})
    std::filesystem::copy_file(dir / ("maps/" + std::string(name) + ".classes.png"),
                               dir / ("others/" + std::string(name) + ".classes.png"));
  for (int again = 0; again < 2; ++again)
    CHECK(summary_of(run_tool(dir, with(kPair, {"--versus", "others", "-o", "maps", "--summary",
                                                "json"})))["inputs"]
              .size() == 2);
  CHECK(std::filesystem::exists(dir / "maps/b.versus.png"));
}

TEST_CASE("the text of several maps has a row for each", "[cli][assess]") {
  const TempDir dir;
  write_pair(dir);
  const Outcome run = run_tool(dir, with(kPair, {"--figures", "none"}));
  REQUIRE(run.exit_code == 0);
  CHECK_THAT(run.out, Catch::Contains("2 maps against truth: 18 pixels assessed, drawn: all"));
  CHECK_THAT(run.out, Catch::Contains("truth/b.truth.png         9   77.8 %"));
  CHECK_THAT(run.out, Catch::Contains("lead 75.0 %"));
  CHECK_THAT(run.out, Catch::Contains("by how much the 2 maps differ: 0.0 to 100.0 %"));
}

TEST_CASE("a sample is drawn from the pixels of all maps", "[cli][assess]") {
  const TempDir dir;
  std::filesystem::create_directory(dir / "maps");
  std::filesystem::create_directory(dir / "truth");
  // Lead is in the second map alone, and all ruby of it is wrong.
  write_glass(dir / "maps/a.png", 40, std::vector<std::uint8_t>(40 * 30, 1));
  write_glass(dir / "truth/a.png", 40, std::vector<std::uint8_t>(40 * 30, 1));
  std::vector<std::uint8_t> map(20 * 40, 2);
  std::fill_n(map.begin(), 400, std::uint8_t{1});
  write_glass(dir / "maps/b.png", 20, map);
  write_glass(dir / "truth/b.png", 20, std::vector<std::uint8_t>(20 * 40, 2));
  const auto drawn = [&](const std::string& how) {
    return summary_of(run_tool(dir, with(kPair, words_of(how + " --figures none --summary json"))));
  };
  const json equal = drawn("--count 200 --stratified equal -o out --threads 1")["together"];
  CHECK(equal["classes"][0]["mapped"] == 100);
  CHECK(equal["classes"][1]["mapped"] == 100);
  CHECK_FALSE(equal.contains("between_maps"));
  // Of the ruby a quarter is of the second map, and so wrong: the areas know its share of all.
  CHECK(equal["adjusted_overall"].get<double>() ==
        Approx(1200.0 / 2000 + 400.0 / 2000).margin(0.1));
  const auto rows = rows_of(dir / "out/sampled.csv");
  REQUIRE(rows.size() == 200);
  int of_second = 0;
  for (const auto& row : rows) {
    const bool second = row.at("map") == "maps/b.png";
    const int x = std::stoi(row.at("x")), y = std::stoi(row.at("y"));
    CHECK(x < (second ? 20 : 40));
    CHECK(y < (second ? 40 : 30));
    CHECK(row.at("mapped") == (second && y >= 20 ? "lead" : "ruby"));
    CHECK(row.at("reference") == (second ? "lead" : "ruby"));
    of_second += second;
  }
  CHECK(of_second > 105);
  CHECK(of_second < 150);
  drawn("--count 200 --stratified equal -o out5 --threads 5");
  for (const char* name : {"sampled.csv", "maps.csv", "accuracy.csv", "b.errors.png"})
    CHECK(text_of_file(dir / ("out/" + std::string(name))) ==
          text_of_file(dir / ("out5/" + std::string(name))));
  const json shown = drawn("--count 50 --show 2");
  CHECK(shown["together"]["shown"].size() == 2);
  CHECK(shown["together"]["shown"][0].contains("map"));
  CHECK_FALSE(shown["inputs"][0].contains("shown"));
  CHECK(shown["together"].contains("between_maps"));
  CHECK(drawn("--every 10")["together"]["assessed"] == 4 * 3 + 2 * 4);
}

TEST_CASE("several maps are held against second ones, pairs and patterns", "[cli][assess]") {
  const TempDir dir;
  write_pair(dir);
  std::filesystem::create_directory(dir / "second");
  write_glass(dir / "second/a.classes.png", 5, kTinyTruth);
  write_glass(dir / "second/b.classes.png", 3, {2, 2, 1, 1, 1, 1, 2, 2, 2});
  const json summary =
      summary_of(run_tool(dir, {"assess", "maps", "--reference", "truth/*.truth.png", "--versus",
                                "second", "--match", "lead=lead", "--summary", "json"}));
  CHECK(summary["inputs"][0]["versus"][0]["file"] == "second/a.classes.png");
  CHECK(summary["inputs"][0]["versus"][0]["only_this"] == 4);
  const json& v = summary["together"]["versus"][0];
  CHECK(v["file"] == "second");
  CHECK(v["only_this"] == 4 + 2);
  CHECK(v["only_first"] == 2);
  CHECK(v["overall"].get<double>() == Approx((9.0 + 7) / 18));
  CHECK(summary["together"]["matched_by"] == "pairs");
  // 4 of 9 pixels more are right, then none: residuals 2 and -2.
  CHECK(v["better_on"] == 1);
  CHECK(v["worse_on"] == 0);
  CHECK(v["gain"].get<double>() == Approx(4.0 / 18));
  CHECK(v["gain_standard_error"].get<double>() == Approx(4.0 / 18));
  CHECK_FALSE(summary["inputs"][0]["versus"][0].contains("gain"));
}

TEST_CASE("a map is held against several others of its picture", "[cli][assess]") {
  const TempDir dir;
  write_tiny(dir);
  for (const char* folder : {"near", "far"}) std::filesystem::create_directory(dir / folder);
  write_glass(dir / "near/t.classes.png", 5, kTinyTruth);
  // Everything is moss, which neither the first map nor the reference knows.
  write_glass(dir / "far/t.classes.png", 5, std::vector<std::uint8_t>(10, 3),
              {{1, "lead", "#3c3d40"}, {3, "moss", "#5b6b2a"}});
  write_glass(dir / "u.png", 5, {1, 1, 2, 2, 1, 2, 1, 1, 0, 1});
  const std::vector<std::string> call =
      with(kTiny, {"--versus", "near/t.classes.png", "--versus", "u.png", "--versus",
                   "far/t.classes.png", "-o", "out"});
  const json p =
      summary_of(run_tool(dir, with(call, {"--figures", "svg", "--summary", "json"})))["inputs"][0];
  REQUIRE(p["versus"].size() == 3);
  CHECK(p["versus"][0]["overall"] == 1);
  CHECK(p["versus"][0]["only_this"] == 4);
  // As with one other map.
  CHECK(p["versus"][1]["only_first"] == 2);
  CHECK(p["versus"][1]["only_this"] == 3);
  CHECK(p["versus"][2]["overall"] == 0);
  CHECK(p["versus"][2]["only_first"] == 5);
  // Exact binomial: 2 / 2^5, 2 / 2^4 and 1; the smallest three times, the next twice.
  CHECK(p["versus"][2]["mcnemar"]["p"].get<double>() == Approx(0.0625));
  CHECK(p["versus"][2]["mcnemar"]["p_adjusted"].get<double>() == Approx(0.1875));
  CHECK(p["versus"][0]["mcnemar"]["p_adjusted"].get<double>() == Approx(0.25));
  CHECK(p["versus"][1]["mcnemar"]["p_adjusted"].get<double>() == Approx(1));
  // All moss is never right, so that all maps never are.
  CHECK(
      p["right_in"] ==
      json{{"all", 0}, {"first_and_some", 5}, {"only_first", 0}, {"only_others", 4}, {"none", 0}});
  CHECK(p["classes"][0]["right_in"]["only_others"] == 2);
  const auto rows = rows_of(dir / "out/maps.csv");
  REQUIRE(rows.size() == 4);
  CHECK(rows[0].at("map") == "t.classes.png");
  CHECK(rows[0].at("right") == "5");
  CHECK(rows[1].at("map") == "near/t.classes.png");
  CHECK(rows[1].at("reference") == "truth.png");
  CHECK(rows[1].at("right") == "9");
  CHECK(std::stod(rows[1].at("f1_ruby")) == 1);
  CHECK(rows[1].at("f1_moss").empty());
  CHECK(rows[3].at("users_moss") == "0");
  CHECK(rows[3].at("producers_lead") == "0");
  const std::string figure = text_of_file(dir / "out/maps.figure.svg");
  // Names alone would not tell them apart.
  CHECK_THAT(figure, Catch::Contains("near/t.classes.png") && Catch::Contains("moss"));
  CHECK_THAT(figure, Catch::Contains("Accuracy of 4 maps of one picture"));
  const Outcome text = run_tool(dir, with(call, {"--figures", "none"}));
  CHECK_THAT(text.out, Catch::Contains("near/t.classes.png  100.0 %"));
  CHECK_THAT(text.out, Catch::Contains("raised for 3 comparisons"));
  CHECK_THAT(text.out, Catch::Contains("all are right on 0.0 %, the first and some on 55.6 %, only "
                                       "the first on 0.0 %, only others on 44.4 %,\n  none on "
                                       "0.0 %\n"));
  CHECK_THAT(text.out, Catch::Contains("with all pixels taken, p is too small as well"));
}

TEST_CASE("several maps are held against several others each", "[cli][assess]") {
  const TempDir dir;
  write_pair(dir);
  for (const char* folder : {"second", "third"}) {
    std::filesystem::create_directory(dir / folder);
    write_glass(dir / (std::string(folder) + "/a.classes.png"), 5, kTinyTruth);
  }
  write_glass(dir / "second/b.classes.png", 3, {2, 2, 1, 1, 1, 1, 2, 2, 2});
  write_glass(dir / "third/b.classes.png", 3, {1, 1, 1, 1, 1, 1, 2, 2, 2});
  const std::vector<std::string> call =
      with(kPair, {"--versus", "second", "--versus", "third", "-o", "out"});
  const json all =
      summary_of(run_tool(dir, with(call, {"--figures", "svg", "--summary", "json"})))["together"];
  CHECK(all["versus"][0]["only_this"] == 4 + 2);
  CHECK(all["versus"][1]["file"] == "third");
  CHECK(all["versus"][1]["overall"] == 1);
  CHECK(all["versus"][1]["only_first"] == 0);
  CHECK(all["versus"][1]["better_on"] == 2);
  CHECK(lines_of(dir / "out/versus.csv") ==
        std::vector<std::string>{"class,pixels,all,first_and_some,only_first,only_others,none",
                                 "ruby,11,5,2,0,4,0", "lead,7,5,0,0,2,0"});
  for (const char* name : {"a.versus.png", "b.versus.png", "a.versus.figure.svg"})
    CHECK(dir.files().count(std::string("out/") + name) == 1);
  const auto rows = rows_of(dir / "out/maps.csv");
  REQUIRE(rows.size() == 6);
  CHECK(rows[2].at("map") == "third/a.classes.png");
  CHECK(rows[3].at("map") == "maps/b.classes.png");
  CHECK_THAT(text_of_file(dir / "out/maps.figure.svg"),
             Catch::Contains("rings: maps of the same pictures") && Catch::Contains("third"));
  const Outcome text = run_tool(dir, with(call, {"--figures", "none"}));
  CHECK_THAT(text.out, Catch::Contains("better on") && Catch::Contains("gain: with its interval"));
}

TEST_CASE("maps that cannot be used are left out when that is asked", "[cli][assess]") {
  const TempDir dir;
  write_pair(dir);
  write_glass(dir / "maps/c.classes.png", 3, {1, 1, 2});
  const Outcome stopped = run_tool(dir, with(kPair, {"-o", "out"}));
  check_error(stopped, 1,
              "maps/c.classes.png: no file of truth goes with its name; name the two alike, as "
              "pane.reference.png and pane.png, or leave it out with --skip-bad");
  const Outcome run = run_tool(dir, with(kPair, {"-o", "out", "--skip-bad", "--summary", "json"}));
  CHECK(run.exit_code == 1);
  const json summary = json::parse(run.out);
  CHECK(summary["together"]["maps"] == 2);
  CHECK(summary["failed"][0]["file"] == "maps/c.classes.png");
  CHECK(std::filesystem::exists(dir / "out/failures.csv"));
}

TEST_CASE("two maps of one picture are not judged together", "[cli][assess]") {
  const TempDir dir;
  write_pair(dir);
  write_glass(dir / "maps/a.png", 5, kTinyMap);
  const auto before = dir.files();
  check_error(run_tool(dir, with(kPair, {"-o", "out"})), 2,
              "maps/a.classes.png and maps/a.png are of one picture; give one of them, and name "
              "the other with --versus");
  CHECK(dir.files() == before);
  check_error(run_tool(dir, {"assess", "maps", "--reference", "truth/*.trueth.png"}), 1,
              "truth/*.trueth.png: no file fits this pattern");
}
