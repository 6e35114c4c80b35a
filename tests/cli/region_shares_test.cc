// `measure --map`: what the classes of a map take of every region.
#include <catch2/catch.hpp>
#include <map>
#include <nlohmann/json.hpp>
#include <string>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/small_regions.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

/// Two regions of one class and one of another, 6 x 2, with a map of them.
void write_panes_and_damage(const TempDir& dir, const std::string& stem = "p") {
  write_labels(dir / (stem + ".panes.png"), 6,
               {1, 1, 0, 1, 2, 2,  //
                1, 1, 0, 1, 2, 2},
               {{1, "ruby", "#a01020"}, {2, "lead", "#303030"}});
  write_labels(dir / (stem + ".damage.png"), 6,
               {5, 0, 5, 0, 7, 7,  //
                5, 5, 5, 0, 7, 0},
               {{5, "rust", "#804020"}, {7, "lime", "#e0e0c0"}, {9, "soot", "#101010"}});
}

}  // namespace

TEST_CASE("measure tells what each class of a map takes of every region", "[cli][measure]") {
  const TempDir dir;
  write_panes_and_damage(dir);
  const Words measure =
      words_of("measure p.panes.png --map p.damage.png --pixel-size 2mm -o out --figures svg");
  const json picture = summary_of(run_tool(dir, with(measure, {"--summary", "json"})))["inputs"][0];
  const json& map = picture["map"];
  CHECK(map["file"] == "p.damage.png");
  CHECK(map["counted"] == 10);
  CHECK(map["unclassified"] == 4);
  CHECK(map["unclassified_percent"] == 40.0);
  REQUIRE(map["classes"].size() == 3);
  CHECK(map["classes"][0]["name"] == "rust");
  CHECK(map["classes"][0]["pixels"] == 3);  // those between the panes are in none
  CHECK(map["classes"][0]["area"] == 12.0);
  CHECK(map["classes"][1]["percent"] == 30.0);
  CHECK(map["classes"][2]["pixels"] == 0);
  const json& ruby = picture["classes"][0]["map"];
  REQUIRE(ruby.size() == 2);
  CHECK(ruby[0]["name"] == "rust");
  CHECK(ruby[0]["percent"] == 50.0);
  CHECK(ruby[0]["regions"] == 1);
  CHECK(ruby[0]["lowest_percent"] == 0.0);
  CHECK(ruby[0]["highest_percent"] == 75.0);
  CHECK(ruby[0]["highest_region"] == 1);
  CHECK(ruby[1]["name"] == "unclassified");
  CHECK(ruby[1]["highest_percent"] == 100.0);
  CHECK(ruby[1]["highest_region"] == 2);
  const json regions = json::parse(text_of_file(dir / "out/p.panes.regions.json"));
  CHECK(regions[0]["map"][0] == json{{"name", "rust"}, {"pixels", 3}, {"percent", 75.0}});
  CHECK(regions[2]["map"][0]["name"] == "lime");

  const auto rows = rows_of(dir / "out/p.panes.regions.csv");
  REQUIRE(rows.size() == 3);
  CHECK_THAT(lines_of(dir / "out/p.panes.regions.csv")[0],
             Catch::EndsWith(",map_class,map_rust_percent,map_lime_percent,map_soot_percent,"
                             "map_unclassified_percent"));
  CHECK(rows[0].at("map_class") == "rust");
  CHECK(rows[0].at("map_rust_percent") == "75");
  CHECK(rows[0].at("map_unclassified_percent") == "25");
  CHECK(rows[1].at("map_class") == "unclassified");
  CHECK(rows[2].at("map_lime_percent") == "75");
  CHECK(rows[2].at("map_soot_percent") == "0");
  const auto shares = rows_of(dir / "out/p.panes.shares.csv");
  REQUIRE(shares.size() == 8);  // of two classes, three and none
  CHECK(shares[0].at("class") == "ruby");
  CHECK(shares[0].at("map_class") == "rust");
  CHECK(shares[0].at("regions") == "2");
  CHECK(shares[0].at("held_by") == "1");
  CHECK(shares[0].at("area") == "12");
  CHECK(shares[0].at("unit") == "mm");
  CHECK(shares[0].at("median_percent") == "0");
  CHECK(shares[2].at("pixels") == "0");
  CHECK(shares[7].at("class") == "lead");
  CHECK(shares[7].at("map_class") == "unclassified");
  CHECK(shares[7].at("percent") == "25");

  CHECK_THAT(text_of_file(dir / "out/p.panes.shares.figure.svg"),
             Catch::Contains("What p.damage.png has in the regions of p.panes.png") &&
                 Catch::Contains("all 3 regions; shares below are those of all regions together") &&
                 Catch::Contains("3 lead") && !Catch::Contains("soot"));
  CHECK_THAT(text_of_file(dir / "out/p.panes.shaded.figure.svg"),
             Catch::Contains("rust, 0.0 to 75.0 %") && Catch::Contains("lime, 0.0 to 75.0 %") &&
                 Catch::Contains("unclassified, 25.0 to 100.0 %"));
  CHECK_THAT(
      run_tool(dir, measure).out,
      Catch::Contains("  what p.damage.png has in them\n") &&
          Catch::Matches("[^]*\n  ruby +rust +3 +50.00 % +12 +1 of 2 +0.00 % +0.00 % +75.00 % +1"
                         "\n[^]*holds most of\n  1 +ruby [^\n]*rust 75.0 %\n[^]*"));
}

TEST_CASE("the shares in regions are those counted by their numbers", "[cli][measure]") {
  const TempDir dir;
  for (const char* name : {"panel-b.png", "panel-b.reference.png", "glass.model.json"})
    copy_demo(dir, name);
  REQUIRE(run_tool(dir, words_of("classify panel-b.png --model glass.model.json --reject 95 "
                                 "--write classes -o out"))
              .exit_code == 0);
  REQUIRE(run_tool(dir, words_of("measure panel-b.reference.png --map out/panel-b.classes.png "
                                 "--numbers --connect 4 --figures none -o out"))
              .exit_code == 0);
  PictureFile file = open_picture(dir / "out/panel-b.reference.numbers.png", {});
  const auto numbers = samples_of<std::uint16_t>(file);
  const auto labels = labels_in(dir / "out/panel-b.classes.png");
  REQUIRE(numbers.size() == labels.size());
  std::map<int, std::map<int, int>> counted;
  for (std::size_t i = 0; i < numbers.size(); ++i) ++counted[numbers[i]][labels[i]];
  const auto rows = rows_of(dir / "out/panel-b.reference.regions.csv");
  REQUIRE(rows.size() == counted.size() - counted.count(0));
  const std::vector<std::string> names{"unclassified", "ruby",  "cobalt", "amber",
                                       "emerald",      "clear", "lead"};
  for (const auto& row : rows) {
    const int region = std::stoi(row.at("region"));
    for (int label = 0; label < 7; ++label) {
      INFO(region << " " << names[static_cast<std::size_t>(label)]);
      const double share =
          std::stod(row.at("map_" + names[static_cast<std::size_t>(label)] + "_percent"));
      CHECK(share * std::stod(row.at("pixels")) / 100 == Approx(counted[region][label]));
    }
  }
}

TEST_CASE("regions hold what a mask selects, and what was drawn", "[cli][measure]") {
  const TempDir dir;
  write_panes_and_damage(dir);
  write_picture(dir / "p.mask.png", spec_of(6, 2, 1),
                bytes_of(std::vector<std::uint8_t>{255, 255, 255, 0, 0, 0, 255, 0, 0, 0, 0, 0}));
  const Words measure = words_of("measure p.panes.png -o out --figures svg --summary json");
  const json masked =
      summary_of(run_tool(dir, with(measure, {"--map", "p.mask.png"})))["inputs"][0];
  CHECK(masked["map"]["classes"].size() == 1);
  CHECK(masked["map"]["classes"][0]["percent"] == 30.0);
  CHECK(masked["map"]["unclassified"] == 0);
  CHECK(masked["classes"][1]["map"].empty());
  auto rows = rows_of(dir / "out/p.panes.regions.csv");
  CHECK(rows[0].at("map_selected_percent") == "75");
  CHECK(rows[0].count("map_class") == 0);
  CHECK(rows[0].count("map_unclassified_percent") == 0);
  // Of classes with a region each, a column for each class of the map.
  CHECK_THAT(run_tool(dir, words_of("measure p.damage.png --map p.panes.png")).out,
             Catch::Matches("[^]*\n  region +ruby +lead +unclassified\n  rust +60.00 % +0 % +"
                            "40.00 %\n  lime +0 % +100.00 % +0 %\n[^]*"));
  std::ofstream(dir / "drawn.geojson")
      << R"({"type": "FeatureCollection", "chalcedony": "samples", "width": 6, "height": 2,
             "features": [{"type": "Feature", "properties": {"class": "crack"}, "geometry":
             {"type": "Polygon", "coordinates": [[[1, 0], [5, 0], [5, 1], [1, 1], [1, 0]]]}}]})";
  const json drawn =
      summary_of(run_tool(dir, with(measure, {"--map", "drawn.geojson"})))["inputs"][0];
  CHECK(drawn["map"]["classes"][0]["name"] == "crack");
  rows = rows_of(dir / "out/p.panes.regions.csv");
  CHECK(rows[0].at("map_crack_percent") == "25");
  CHECK(rows[1].at("map_crack_percent") == "50");
  CHECK(rows[2].at("map_crack_percent") == "25");
  // A mask that selects nothing has no regions to tell of.
  write_picture(dir / "none.png", spec_of(6, 2, 1), bytes_of(std::vector<std::uint8_t>(12)));
  const json none = summary_of(run_tool(
      dir, words_of("measure none.png --map p.damage.png -o none --summary json")))["inputs"][0];
  CHECK(none["map"]["counted"] == 0);
  CHECK(lines_of(dir / "none/none.shares.csv").size() == 1);
}

TEST_CASE("classes of a map that share a name are one", "[cli][measure]") {
  const TempDir dir;
  write_panes_and_damage(dir);
  write_labels(dir / "twice.png", 6,
               {5, 0, 5, 0, 7, 7,  //
                8, 5, 5, 0, 7, 0},
               {{5, "rust", "#804020"}, {7, "lime", "#e0e0c0"}, {8, "rust", "#a05030"}});
  const json found = summary_of(run_tool(
      dir, words_of("measure p.panes.png --map twice.png -o out --figures none --summary json")));
  CHECK(found["inputs"][0]["map"]["classes"].size() == 2);
  const auto rows = rows_of(dir / "out/p.panes.regions.csv");
  CHECK(rows[0].at("map_rust_percent") == "75");
  CHECK_THAT(lines_of(dir / "out/p.panes.regions.csv")[0],
             Catch::EndsWith(",map_class,map_rust_percent,map_lime_percent,"
                             "map_unclassified_percent"));
}

TEST_CASE("maps of several pictures are told together, as of their shards", "[cli][measure]") {
  const TempDir dir;
  for (const char* stem : {"p", "q", "r"}) write_panes_and_damage(dir, stem);
  // Nothing but lime in the last one.
  write_labels(dir / "r.damage.png", 6, std::vector<std::uint8_t>(12, 7),
               {{5, "rust", "#804020"}, {7, "lime", "#e0e0c0"}, {9, "soot", "#101010"}});
  const Words all =
      words_of("measure p.panes.png q.panes.png r.panes.png --map *.damage.png --figures svg");
  const json found = summary_of(run_tool(dir, with(all, {"-o", "one", "--summary", "json"})));
  const json& map = found["together"]["map"];
  CHECK(map["pictures"] == 3);
  CHECK(map["counted"] == 30);
  CHECK(map["unclassified"] == 8);
  CHECK(map["classes"][1]["name"] == "lime");
  CHECK(map["classes"][1]["pixels"] == 16);
  CHECK(map["classes"][1]["lowest_percent"] == 30.0);
  CHECK(map["classes"][1]["lowest_file"] == "p.panes.png");
  CHECK(map["classes"][1]["highest_file"] == "r.panes.png");
  const auto shares = rows_of(dir / "one/shares.csv");
  CHECK(shares.size() == 24);
  CHECK(shares[0].at("picture") == "p.panes.png");
  const std::string drawn = text_of_file(dir / "one/shares.figure.svg");
  CHECK_THAT(drawn, Catch::Contains("Shares of classes in regions in 3 pictures"));
  for (const char* part : {"1", "2"})
    REQUIRE(run_tool(dir, with(all, {"--shard", std::string(part) + "/2", "-o", part})).exit_code ==
            0);
  const json gathered =
      summary_of(run_tool(dir, {"gather", "1", "2", "-o", "all", "--summary", "json"}));
  CHECK(gathered["runs"][0]["together"]["map"] == map);
  CHECK(text_of_file(dir / "all/shares.csv") == text_of_file(dir / "one/shares.csv"));
  CHECK(text_of_file(dir / "all/shares.figure.svg") == drawn);
  CHECK_THAT(run_tool(dir, with(all, {"-o", "again"})).out,
             Catch::Matches("[^]*\n  what their maps have in these\n[^]*\n  lime +16 +53.33 % +"
                            "30.00 % in p.panes.png +100.00 % in r.panes.png\n[^]*"));
  // A map that changed since is read anew.
  write_labels(dir / "q.damage.png", 6, std::vector<std::uint8_t>(12, 9),
               {{5, "rust", "#804020"}, {7, "lime", "#e0e0c0"}, {9, "soot", "#101010"}});
  const json resumed =
      summary_of(run_tool(dir, with(all, {"-o", "again", "--resume", "--summary", "json"})));
  CHECK(resumed["unchanged"] == 2);
  CHECK(resumed["together"]["map"]["classes"][2]["pixels"] == 10);
}

TEST_CASE("measure refuses maps that do not go with the regions, and leaves nothing",
          "[cli][measure]") {
  const TempDir dir;
  write_panes_and_damage(dir);
  write_holed_mask(dir / "m.png");
  check_error(run_tool(dir, words_of("measure p.panes.png --map m.png -o out")), 1,
              "m.png: is 6x4, the regions are of 6x2; give the map of the picture that the regions "
              "belong to");
  check_error(run_tool(dir, words_of("measure p.panes.png --map nowhere.png -o out")), 1,
              "nowhere.png: ");
  check_error(run_tool(dir, words_of("measure p.panes.png m.png --map p.damage.png -o out")), 2,
              "--map: one file does not go with 2 inputs");
  check_error(run_tool(dir, words_of("measure p.panes.png --write shares -o out")), 2, "shares");
  check_nothing_in(dir, "out");
}
