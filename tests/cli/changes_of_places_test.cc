// `changes --then` at the built program: what became of the classes of maps of many places.
#include <catch2/catch.hpp>
#include <cmath>
#include <nlohmann/json.hpp>

#include "core/stats/student_distribution.h"
#include "tests/support/other_writers.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

const std::vector<LegendEntry> kMossRock{{1, "moss", "#40a020"}, {2, "rock", "#d0d0d0"}};

/// Three places of ten pixels in two years: moss is on 1, 2 and 3 of them, and then on 3, 2 and 6;
/// the second place also has a class of its own.
void write_places(const TempDir& dir) {
  for (const char* year : {"1990", "2020"}) std::filesystem::create_directory(dir / year);
  const auto place = [&](const std::string& name, std::size_t moss, std::uint8_t last,
                         const std::vector<LegendEntry>& classes) {
    std::vector<std::uint8_t> labels(10, 2);
    std::fill_n(labels.begin(), moss, std::uint8_t{1});
    labels.back() = last;
    write_labels(dir / name, 5, labels, classes);
  };
  std::vector<LegendEntry> with_fern = kMossRock;
  with_fern.push_back({3, "Fern", "#106010"});
  place("1990/a.png", 1, 2, kMossRock);
  place("2020/a.png", 3, 0, kMossRock);
  place("1990/b.png", 2, 2, kMossRock);
  place("2020/b.png", 2, 3, with_fern);
  place("1990/c.png", 3, 2, kMossRock);
  place("2020/c.png", 6, 2, kMossRock);
}

const Words kPlaces{"changes", "1990/a.png", "1990/b.png", "1990/c.png", "--then", "2020"};

json told(const TempDir& dir, const Words& words) {
  return summary_of(run_tool(dir, with(words, {"--summary", "json"})));
}

}  // namespace

TEST_CASE("changes adds up many places and says how each class went", "[cli][changes]") {
  const TempDir dir;
  write_places(dir);
  const json all = told(dir, with(kPlaces, {"--pixel-size", "2m", "-o", "out"}));
  REQUIRE(all["inputs"].size() == 3);
  CHECK(all["inputs"][0]["maps"][1]["file"] == "2020/a.png");
  CHECK(all["inputs"][2]["steps"][0]["changed"] == 3);
  const json& together = all["together"];
  CHECK(together["places"] == 3);
  CHECK(together["counted"] == 30);
  CHECK(together["times"] == json({"1990", "2020"}));
  REQUIRE(together["steps"].size() == 1);
  const json& step = together["steps"][0];
  CHECK(step["changed"] == 3 + 1 + 3);
  CHECK(step["changed_area"] == 7 * 4);
  CHECK(step["lowest_percent"] == 10);
  CHECK(step["lowest_file"] == "1990/b.png");
  CHECK(step["highest_file"] == "1990/a.png");
  REQUIRE(step["classes"].size() == 4);
  const json& moss = step["classes"][0];
  CHECK(moss["before"] == 6);
  CHECK(moss["after"] == 11);
  CHECK(moss["stayed"] == 6);
  CHECK(moss["gained"] == 5);
  CHECK(moss["grew_in"] == 2);
  CHECK(moss["shrank_in"] == 0);
  CHECK(moss["highest_percent"].get<double>() == Approx(30));
  CHECK(moss["highest_file"] == "1990/c.png");
  // Of places of one size the change is the mean of theirs, with its usual error.
  const double mean = (20.0 + 0 + 30) / 3;
  const double error =
      std::sqrt((std::pow(20 - mean, 2) + std::pow(mean, 2) + std::pow(30 - mean, 2)) / 2 / 3);
  CHECK(moss["change_percent"].get<double>() == Approx(mean));
  CHECK(moss["standard_error"].get<double>() == Approx(error));
  CHECK(moss["change_high"].get<double>() == Approx(mean + student_t(0.95, 2) * error));
  CHECK(step["classes"][2]["name"] == "Fern");
  CHECK(step["classes"][3]["name"] == "unclassified");
  REQUIRE(step["flows"].size() == 3);
  CHECK(step["flows"][0]["from"] == "rock");
  CHECK(step["flows"][0]["to"] == "moss");
  CHECK(step["flows"][0]["pixels"] == 5);
  CHECK(step["flows"][0]["area"] == 20);

  const auto rows = rows_of(dir / "out/places.csv");
  REQUIRE(rows.size() == 4);
  CHECK(rows[0].at("class") == "moss");
  CHECK(rows[0].at("to") == "2020");
  CHECK(rows[0].at("grew_in") == "2");
  CHECK(rows[0].at("area_after") == "44");
  CHECK(rows[0].at("unit") == "m");
  CHECK(rows[2].at("lowest_file") == "1990/a.png");
  const auto gains = rows_of(dir / "out/gains.csv");
  CHECK(gains.size() == 3 + 4 + 3);
  CHECK(gains[3].at("picture") == "1990/b.png");
  CHECK(labels_in(dir / "out/b.changed.png") ==
        std::vector<std::uint8_t>{1, 1, 1, 1, 1, 1, 1, 1, 1, 4});
  for (const char* file : {"a.changes.csv", "b.flows.figure.png", "c.changed.figure.png"})
    CHECK(std::filesystem::exists(dir / "out" / file));
  CHECK_FALSE(std::filesystem::exists(dir / "out/histories.csv"));
  const Outcome text = run_tool(dir, kPlaces);
  CHECK_THAT(text.out,
             Catch::StartsWith("3 places at 2 times, 30 pixels counted\n"
                               "from 1990 to 2020: 7 pixels changed, 23.3 %; least 10 % of "
                               "1990/b.png, most 30 % of 1990/a.png\n") &&
                 Catch::Contains("moss          20.00 %  36.67 %  +16.67") &&
                 Catch::Contains("rock  moss               5  16.67 %"));
}

TEST_CASE("figures of many places show all flows, and each place's gains", "[cli][changes]") {
  const TempDir dir;
  write_places(dir);
  std::filesystem::copy(dir / "2020", dir / "2023");
  const Words drawn = with(kPlaces, {"--then", "2023/*.png", "--figures", "svg"});
  REQUIRE(run_tool(dir, with(drawn, {"-o", "whole"})).exit_code == 0);
  CHECK_THAT(text_of_file(dir / "whole/flows.figure.svg"),
             Catch::Contains("What became of the classes of 3 places") &&
                 Catch::Contains(">2023<") && Catch::Contains(">36.7<"));
  CHECK_THAT(text_of_file(dir / "whole/gains.figure.svg"),
             Catch::Contains("How the classes went in 3 places") &&
                 Catch::Contains("from 1990 to 2020") && Catch::Contains("from 1990 to 2023") &&
                 Catch::Contains(">Fern<"));
  CHECK(rows_of(dir / "whole/places.csv").size() == 3 * 4);
  CHECK(rows_of(dir / "whole/histories.csv").size() == 4 + 3 + 3);

  // The shards of it are one run.
  for (const char* shard : {"1/2", "2/2"})
    REQUIRE(run_tool(dir, with(drawn, {"--shard", shard, "-o", std::string("s") + shard[0]}))
                .exit_code == 0);
  REQUIRE(run_tool(dir, {"gather", "s1", "s2", "-o", "gathered", "-q"}).exit_code == 0);
  for (const char* file :
       {"/places.csv", "/gains.csv", "/gains.figure.svg", "/flows.figure.svg", "/b.changed-1.png"})
    CHECK(text_of_file(dir / (std::string("gathered") + file)) ==
          text_of_file(dir / (std::string("whole") + file)));
  REQUIRE(run_tool(dir, {"run", "whole/how.json", "-o", "again/"}).exit_code == 0);
  CHECK(text_of_file(dir / "again/places.csv") == text_of_file(dir / "whole/places.csv"));
}

TEST_CASE("a later map that changed has its place told again", "[cli][changes]") {
  const TempDir dir;
  write_places(dir);
  const Words again = with(kPlaces, {"-o", "out", "--figures", "none", "--resume"});
  CHECK(told(dir, again)["together"]["steps"][0]["classes"][0]["gained"] == 5);
  CHECK(told(dir, again)["unchanged"] == 3);
  std::filesystem::copy_file(dir / "1990/c.png", dir / "2020/c.png",
                             std::filesystem::copy_options::overwrite_existing);
  const json later = told(dir, again);
  CHECK(later["unchanged"] == 2);
  CHECK(later["together"]["steps"][0]["classes"][0]["gained"] == 2);
}

TEST_CASE("places whose maps do not fit are told, and the others are done", "[cli][changes]") {
  const TempDir dir;
  write_places(dir);
  write_labels(dir / "2020/b.png", 2, {1, 2}, kMossRock);
  write_labels(dir / "1990/d.png", 5, std::vector<std::uint8_t>(10, 1), kMossRock);
  const Outcome some =
      run_tool(dir, with(kPlaces, {"1990/d.png", "-o", "out", "--figures", "none"}));
  CHECK(some.exit_code == 1);
  CHECK_THAT(some.err,
             Catch::Contains("1990/b.png: 2020/b.png: is 2x1, 1990/b.png is 5x2; give maps of one "
                             "place, all of one size\n") &&
                 Catch::Contains("1990/d.png: no file of 2020 goes with its name"));
  CHECK_THAT(some.out, Catch::StartsWith("2 places at 2 times"));
  CHECK(std::filesystem::exists(dir / "out/a.changes.csv"));
  CHECK_FALSE(std::filesystem::exists(dir / "out/b.changes.csv"));
  check_error(run_tool(dir, {"changes", "1990/a.png", "--then", "nowhere", "-o", "none"}), 1,
              "nowhere: no such file");
  check_error(
      run_tool(dir, {"changes", "1990/a.png", "1990/b.png", "--then", "2020/a.png", "-o", "none"}),
      2, "--then");
  Words many{"changes", "1990/a.png", "-o", "none"};
  for (int i = 0; i < 8; ++i) many = with(many, {"--then", "2020"});
  check_error(run_tool(dir, many), 2,
              "changes takes 2 to 8 maps of one place, not 9; give them in the order of time, or "
              "of many places those of later times by --then");
  check_nothing_in(dir, "none");
}
