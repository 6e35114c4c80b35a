// Runs in shards, put together again, and the tables that groups, palettes and models are made of.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <set>
#include <string>

#include "tests/support/outcome.h"
#include "tests/support/panes.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

TEST_CASE("shards put together are one run, byte by byte", "[cli][many][shards]") {
  const TempDir dir;
  write_panes(dir, true);
  CHECK(run_tool(dir, with(kCountPanes, {"-o", "one"})).exit_code == 1);
  CHECK(run_tool(dir, {"inspect", "panes", "-o", "one"}).exit_code == 1);
  std::set<std::string> seen;
  for (const std::string part : {"1", "2", "3"}) {
    const auto run = run_tool(dir, with(kCountPanes, {"--shard", part + "/3", "-o", "s" + part}));
    const json done = json::parse(run.out);
    const std::size_t pictures = done["inputs"].size() + done["failed"].size();
    CHECK((pictures == 3 || pictures == 4));
    for (const json& input : done["inputs"])
      CHECK(seen.insert(input["file"].get<std::string>()).second);
    run_tool(dir, {"inspect", "panes", "--shard", part + "/3", "-o", "s" + part});
  }
  CHECK(seen.size() == 9);
  // In any order.
  const json gathered =
      summary_of(run_tool(dir, {"gather", "s3", "s1", "s2", "-o", "all", "--summary", "json"}));
  REQUIRE(gathered["runs"].size() == 2);
  CHECK(gathered["runs"][0] ==
        json{{"command", "histogram"}, {"shards", 3}, {"pictures", 10}, {"failed", 1}});
  CHECK(contents_of(dir / "all") == contents_of(dir / "one"));
  // The journals are kept, so that a picture more is one picture more.
  write_rgb(dir / "panes/pane-10.png", 16, 8, random_bytes(16 * 8 * 3, 10));
  const auto more = run_tool(dir, with(kCountPanes, {"-o", "all", "--resume"}));
  CHECK(json::parse(more.out)["unchanged"] == 9);
}

TEST_CASE("a shard that is done again, or goes on, is one shard", "[cli][many][shards]") {
  const TempDir dir;
  write_panes(dir);
  const Words inspect{"inspect", "panes", "--recursive", "-q"};
  for (const char* part : {"1", "2"})
    for (const Words& more : {Words{}, Words{}, Words{"--resume"}})
      REQUIRE(run_tool(dir, with(with(inspect, more), {"--shard", std::string(part) + "/2", "-o",
                                                       std::string("s") + part}))
                  .exit_code == 0);
  REQUIRE(run_tool(dir, {"gather", "s1", "s2", "-o", "all"}).exit_code == 0);
  REQUIRE(run_tool(dir, with(inspect, {"-o", "one"})).exit_code == 0);
  CHECK(contents_of(dir / "all") == contents_of(dir / "one"));
  // One of these has no picture.
  for (const char* part : {"1", "2"})
    for (int again = 0; again < 2; ++again)
      REQUIRE(run_tool(dir, {"inspect", "panes/pane-1.png", "-q", "--shard",
                             std::string(part) + "/2", "-o", std::string("t") + part})
                  .exit_code == 0);
  for (const char* part : {"t1", "t2"})
    CHECK(json::parse(text_of_file(dir / part / "how.json"))["runs"].size() == 1);
  CHECK(run_tool(dir, {"gather", "t1", "t2", "-o", "few"}).exit_code == 0);
}

TEST_CASE("what all pictures hold is told and drawn of shards as of one run",
          "[cli][many][shards][shares]") {
  const TempDir dir;
  write_panes(dir);
  REQUIRE(run_tool(dir, {"slice", "panes", "--channel", "lab.l", "--cuts", "0,40,60,100", "-o",
                         "maps", "--figures", "none", "--write", "slices"})
              .exit_code == 0);
  REQUIRE(run_tool(dir, words_of("train panes/pane-1.png --sample one=0,0,8,8 --sample two=8,0,8,8 "
                                 "--figures none --write model -o model"))
              .exit_code == 0);
  const std::vector<std::pair<Words, std::string>> runs{
      {words_of("mask panes --where \"lab.l > 50\""), "coverage.figure.svg"},
      {words_of("slice panes --channel lab.l --cuts 0,40,100"), "slices.figure.svg"},
      {words_of("classify panes --model model/model.json --pixel-size 2mm"), "areas.figure.svg"},
      {words_of("tidy maps --steps fill"), "tidy.figure.svg"}};
  std::size_t number = 0;
  for (const auto& [run, figure] : runs) {
    const std::string all = "all" + std::to_string(++number), one = "one" + std::to_string(number);
    const Words asked = with(run, {"--figures", "svg", "--write", "figure", "--summary", "json"});
    const json whole = summary_of(run_tool(dir, with(asked, {"-o", one})));
    Words gather{"gather", "-o", all, "--summary", "json"};
    for (const std::string part : {"1", "2"}) {
      gather.push_back("s" + std::to_string(number) + part);
      summary_of(run_tool(dir, with(asked, {"--shard", part + "/2", "-o", gather.back()})));
    }
    const json gathered = summary_of(run_tool(dir, gather))["runs"][0];
    INFO(figure);
    CHECK(gathered["together"] == whole["together"]);
    CHECK(gathered["inputs"].size() == whole["inputs"].size());
    CHECK(std::filesystem::exists(dir / (all + "/" + figure)));
    CHECK(contents_of(dir / all) == contents_of(dir / one));
  }
  CHECK_THAT(run_tool(dir, {"gather", "s11", "s12", "-o", "all"}).out,
             Catch::StartsWith("mask: 7 pictures of 2 shards, 0 failed\nall 7 pictures: "));
  CHECK_THAT(run_tool(dir, {"gather", "s21", "s22", "-o", "all"}).out,
             Catch::Contains("  lab.l 40..100 "));
}

TEST_CASE("only figures that were asked for are drawn of shards", "[cli][many][shards][shares]") {
  const TempDir dir;
  write_panes(dir);
  for (const Words& more : {Words{"--figures", "none"}, Words{"--write", "slices,areas"}}) {
    for (const std::string part : {"1", "2"})
      REQUIRE(run_tool(dir, with({"slice", "panes", "--channel", "lab.l", "--cuts", "0,40,100",
                                  "--shard", part + "/2", "-o", "s" + part},
                                 more))
                  .exit_code == 0);
    REQUIRE(run_tool(dir, {"gather", "s1", "s2", "-o", "all"}).exit_code == 0);
    CHECK(std::filesystem::exists(dir / "all/slices.csv"));
    for (const std::string& name : dir.files()) CHECK_THAT(name, !Catch::Contains("figure"));
    for (const char* folder : {"s1", "s2", "all"}) std::filesystem::remove_all(dir / folder);
  }
  // Of several selections that are tried there is nothing to add up.
  for (const std::string part : {"1", "2"})
    REQUIRE(run_tool(dir, {"mask", "panes", "--where", "lab.l > {low}", "--vary", "low=10..50/3",
                           "--shard", part + "/2", "-o", "s" + part})
                .exit_code == 0);
  CHECK_FALSE(
      summary_of(run_tool(dir, {"gather", "s1", "s2", "-o", "all", "--summary", "json"}))["runs"][0]
          .contains("together"));
}

TEST_CASE("shards that do not make a whole are refused", "[cli][many][shards]") {
  const TempDir dir;
  write_panes(dir);
  for (const std::string part : {"1", "2"})
    CHECK(run_tool(dir, {"inspect", "panes", "--shard", part + "/2", "-o", "s" + part}).exit_code ==
          0);
  CHECK(run_tool(dir, {"inspect", "panes", "-o", "whole"}).exit_code == 0);
  CHECK(run_tool(dir, {"inspect", "panes", "--space", "lab", "--shard", "2/2", "-o", "lab"})
            .exit_code == 0);
  check_error(run_tool(dir, {"gather", "s1", "-o", "all"}), 1,
              "shard 2/2 of 'inspect' is missing; run it");
  check_error(run_tool(dir, {"gather", "s1", "lab", "-o", "all"}), 1,
              "shard 2/2 of 'inspect' is missing");
  check_error(run_tool(dir, {"gather", "s1", "s2", "s1", "-o", "all"}), 1,
              "s1: holds shard 1/2 of 'inspect', as does s1; give each shard once");
  check_error(run_tool(dir, {"gather", "s1", "whole", "-o", "all"}), 1,
              "whole: holds results of 'inspect' that were not made with --shard");
  for (const std::string none : {"panes", "nowhere", "panes/a.png"})
    check_error(run_tool(dir, {"gather", none, "-o", "all"}), 1,
                none +
                    ": holds no how.json, as the folder of a shard does; give the folders that "
                    "runs with --shard wrote into");
  auto how = nlohmann::ordered_json::parse(text_of_file(dir / "s2/how.json"));
  how["runs"][0]["outputs"].push_back("all.png");
  put_text(dir / "s2/how.json", how.dump());
  check_error(run_tool(dir, {"gather", "s1", "s2", "-o", "all"}), 1,
              "s2: holds all.png, a result of all pictures together, which cannot be put together; "
              "make it anew, without --shard");
  const std::string whole = text_of_file(dir / "s2/inspect.pictures.jsonl");
  std::string journal = whole;
  journal.insert(1, R"("edited":true,)");
  put_text(dir / "s2/inspect.pictures.jsonl", journal);
  check_error(run_tool(dir, {"gather", "s1", "s2", "-o", "all"}), 1,
              "s2: has another journal of 'inspect' than s1; run the shards on the same inputs");
  // The last of its pictures was not done when the shard was stopped.
  put_text(dir / "s2/inspect.pictures.jsonl",
           whole.substr(0, whole.rfind('\n', whole.size() - 2) + 1));
  check_error(run_tool(dir, {"gather", "s1", "s2", "-o", "all"}), 1,
              "the shards hold 6 of 7 pictures; let every shard end, with --resume if it was "
              "stopped");
  check_error(run_tool(dir, {"gather", "-o", "all"}), 2, "no shard is given");
  check_error(run_tool(dir, {"gather", "s1", "s2"}), 2, "gather needs -o");
  check_nothing_in(dir, "all");
  for (const char* shard : {"0/2", "3/2", "1", "a/b", "1/2/3"})
    check_error(run_tool(dir, {"inspect", "panes", "--shard", shard, "-o", "x"}), 2, "--shard: '");
  check_error(run_tool(dir, {"inspect", "panes", "--shard", "1/2"}), 2, "--shard needs a folder");
  check_error(run_tool(dir, {"cluster", "panes", "--k", "2", "--shard", "1/2", "-o", "x"}), 2,
              "there is no option '--shard'");
  CHECK_FALSE(std::filesystem::exists(dir / "x"));
}

TEST_CASE("groups and palettes of gathered colors are those of the pictures",
          "[cli][many][shards]") {
  const TempDir dir;
  write_panes(dir);
  write_stripes(dir / "panes/pane-0.png");
  for (const std::string part : {"1", "2"})
    CHECK(run_tool(dir, {"histogram", "panes", "--recursive", "--colors", "--shard", part + "/2",
                         "-o", "s" + part})
              .exit_code == 0);
  CHECK(run_tool(dir, {"gather", "s1", "s2", "-o", "all"}).exit_code == 0);
  std::uint64_t pixels = 0;
  const auto table = rows_of(dir / "all/colors.csv");
  for (const auto& row : table) pixels += std::stoull(row.at("pixels"));
  CHECK(pixels == 9 * 16 * 8 + 20 * 10);
  CHECK(table.front().at("srgb.r") == "0");
  const Words groups{"--k", "3..5", "--figures", "none", "--write", "model,centers", "-o"};
  const json of_table = summary_of(run_tool(
      dir, with({"cluster", "all/colors.csv", "--summary", "json"}, with(groups, {"of-table"}))));
  const json of_pictures =
      summary_of(run_tool(dir, with({"cluster", "panes", "--recursive", "--summary", "json"},
                                    with(groups, {"of-pictures"}))));
  CHECK(of_table["clusters"] == of_pictures["clusters"]);
  CHECK_FALSE(of_table["choices"][0].contains("lone_percent"));
  for (const char* file : {"clusters.centers.csv", "clusters.model.json"})
    CHECK(text_of_file(dir / (std::string("of-table/") + file)) ==
          text_of_file(dir / (std::string("of-pictures/") + file)));
  CHECK_THAT(run_tool(dir, {"cluster", "all/colors.csv", "--k", "2..3"}).out,
             Catch::Contains("1,352 pixels counted"));
  // A palette of one picture and of its table.
  CHECK(run_tool(dir, {"palette", "panes/pane-0.png", "--figures", "none", "-o", "p"}).exit_code ==
        0);
  const std::string own = (std::filesystem::exists(dir / "s1/pane-0.colors.csv") ? "s1" : "s2") +
                          std::string("/pane-0.colors.csv");
  CHECK(run_tool(dir, {"palette", own, "-o", "p"}).exit_code == 0);
  CHECK(text_of_file(dir / "p/pane-0.colors.palette.csv") ==
        text_of_file(dir / "p/pane-0.palette.csv"));
}

TEST_CASE("what is no table of colors or samples is refused", "[cli][many]") {
  const TempDir dir;
  write_stripes(dir / "a.png");
  put_text(dir / "t.csv", "srgb.r,srgb.g,srgb.b,pixels\n1,2,300,4\n");
  check_error(run_tool(dir, {"cluster", "t.csv", "--k", "2", "-o", "x"}), 1,
              "t.csv: is no table of colors; give colors.csv as histogram --colors writes it");
  put_text(dir / "t.csv", "srgb.r,srgb.g,srgb.b,pixels\n1,2,3,4\n9,9,9,1\n");
  check_error(run_tool(dir, {"cluster", "t.csv", "--k", "2", "--features", "file.0", "-o", "x"}), 1,
              "a table of colors has no channels of a file");
  check_error(run_tool(dir, {"train", "t.csv", "-o", "x"}), 1, "t.csv: is no table of samples");
  put_text(dir / "s.csv", "class,color,pixels,oklab.l\nred,#ff0000,3,0.5\n");
  check_error(run_tool(dir, {"train", "s.csv", "-o", "x"}), 1,
              "s.csv: has the features oklab.l; train with the same --features");
  put_text(dir / "s.csv", "class,color,pixels,oklab.l\nred,#ff0000,3,half\n");
  check_error(run_tool(dir, {"train", "s.csv", "--features", "oklab.l", "-o", "x"}), 1,
              "s.csv: holds 'half' where a number belongs");
  check_error(run_tool(dir, {"train", "s.csv", "--features", "oklab.l", "--holdout", "0.3"}), 2,
              "a table of samples has none");
  write_picture(dir / "deep.png", spec_of(4, 4, 3, SampleType::kU16),
                bytes_of(std::vector<std::uint16_t>(48, 300)));
  PictureSpec lab = spec_of(4, 4, 3);
  lab.space = &spaces::kLab;
  write_picture(dir / "lab.png", lab, bytes_of(std::vector<std::uint8_t>(48, 30)));
  for (const std::string name : {"deep", "lab"}) {
    check_error(run_tool(dir, {"histogram", name + ".png", "--colors", "-o", name}), 1,
                name +
                    ".png: its colors cannot be counted, as they are not 8-bit RGB; convert it "
                    "to srgb with --depth 8");
    CHECK_FALSE(std::filesystem::exists(dir / name / (name + ".colors.csv")));
  }
  CHECK_FALSE(std::filesystem::exists(dir / "x/clusters.model.json"));
}

TEST_CASE("a model of kept samples is that of the pictures", "[cli][many][train]") {
  const TempDir dir;
  write_panes(dir);
  const auto samples = [&](const char* file, int shift) {
    json shapes{{"type", "FeatureCollection"}, {"features", json::array()}};
    for (int c = 0; c < 2; ++c) {
      const int x = 8 * c + shift;
      shapes["features"].push_back(
          {{"type", "Feature"},
           {"properties", {{"class", c == 0 ? "left" : "right"}}},
           {"geometry",
            {{"type", "Polygon"},
             {"coordinates", {{{x, 0}, {x + 6, 0}, {x + 6, 8}, {x, 8}, {x, 0}}}}}}});
    }
    put_text(dir / file, shapes.dump());
  };
  samples("1.geojson", 0);
  samples("2.geojson", 1);
  const Words train{"train", "--method", "maximum-likelihood", "--figures", "none"};
  CHECK(run_tool(dir, with(train, {"panes/pane-1.png", "panes/pane-2.png", "--samples", "1.geojson",
                                   "--samples", "2.geojson", "-o", "one"}))
            .exit_code == 0);
  for (const std::string i : {"1", "2"})
    CHECK(run_tool(dir, with(train, {"panes/pane-" + i + ".png", "--samples", i + ".geojson",
                                     "--keep-samples", "-o", "kept" + i}))
              .exit_code == 0);
  const auto merged = run_tool(
      dir, with(train, {"kept1/sample-table.csv", "kept2/sample-table.csv", "-o", "merged"}));
  INFO(merged.err);
  CHECK(merged.exit_code == 0);
  CHECK_THAT(merged.out,
             Catch::Contains("kept2/sample-table.csv: 96 sample pixels that were kept"));
  const json one = json::parse(text_of_file(dir / "one/model.json"));
  const json both = json::parse(text_of_file(dir / "merged/model.json"));
  CHECK(one["classes"] == both["classes"]);
  CHECK(text_of_file(dir / "one/samples.csv") == text_of_file(dir / "merged/samples.csv"));
  // A table beside a picture.
  CHECK(run_tool(dir, with(train, {"kept1/sample-table.csv", "panes/pane-2.png", "--samples",
                                   "2.geojson", "-o", "mixed"}))
            .exit_code == 0);
  CHECK(json::parse(text_of_file(dir / "mixed/model.json"))["classes"] == one["classes"]);
}
