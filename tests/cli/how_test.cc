// how.json: what made the results of a folder, and how it makes them again.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <string>

#include "tests/support/outcome.h"
#include "tests/support/panes.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

TEST_CASE("how.json says what made the results, and makes them again", "[cli][many][how]") {
  const TempDir dir;
  write_panes(dir);
  CHECK(run_tool(dir, {"train", "panes/pane-1.png", "--sample", "a=0,0,8,4", "--sample",
                       "b=8,4,8,4", "--figures", "none", "-o", "out"})
            .exit_code == 0);
  CHECK(run_tool(dir, {"classify", "panes", "--recursive", "--model", "out/model.json", "-o", "out",
                       "--write", "classes,areas", "--threads", "1"})
            .exit_code == 0);
  CHECK(run_tool(dir, {"smooth", "panes/pane-2.png", "--filter", "median", "--radius", "1", "-o",
                       "out/soft.png"})
            .exit_code == 0);
  const json how = json::parse(text_of_file(dir / "out/how.json"));
  CHECK(how["chalcedony"] == "how");
  REQUIRE(how["runs"].size() == 3);
  const json& classify = how["runs"][1];
  CHECK(classify["command"] == "classify");
  CHECK(classify["operands"] == json{"panes"});
  CHECK(classify["options"] ==
        json{{"model", "{out}/model.json"}, {"recursive", true}, {"write", "classes,areas"}});
  CHECK(classify["from"] == "..");
  CHECK(classify["seed"] == 1);
  REQUIRE(classify["inputs"].size() == 9);
  CHECK(classify["inputs"][8]["file"] == "panes/north/pane-9.png");
  CHECK(classify["inputs"][0]["bytes"] == std::filesystem::file_size(dir / "panes/pane-1.png"));
  CHECK(classify["inputs"][0]["hash"].get<std::string>().size() == 32);
  CHECK(classify["files"][0]["file"] == "{out}/model.json");
  CHECK(classify["outputs"].size() == 9 * 2 + 1);
  CHECK(how["runs"][2]["output"] == "soft.png");

  const auto planned = run_tool(dir, {"run", "out/how.json", "-o", "again", "--dry-run"});
  CHECK_THAT(planned.out, Catch::Contains("$ chalcedony classify panes --model again/model.json "
                                          "--recursive --write classes,areas -o again\n"));
  CHECK_FALSE(std::filesystem::exists(dir / "again"));
  const json again =
      summary_of(run_tool(dir, {"run", "out/how.json", "-o", "again", "--summary", "json"}));
  CHECK(again["steps"].size() == 3);
  CHECK(contents_of(dir / "again") == contents_of(dir / "out"));

  write_rgb(dir / "panes/north/pane-9.png", 16, 8, random_bytes(16 * 8 * 3, 99));
  check_error(run_tool(dir, {"run", "out/how.json", "-o", "third"}), 1,
              "panes/north/pane-9.png: is not what it was when the results were made");
  CHECK_FALSE(std::filesystem::exists(dir / "third"));
}

TEST_CASE("how.json lists the files that options name, and no others", "[cli][many][how]") {
  const TempDir dir;
  write_panes(dir);
  // Files that are called like values of options.
  for (const char* name : {"lab", "16"}) put_text(dir / name, "no input");
  write_picture(dir / "on.png", spec_of(16, 8, 1), bytes_of(std::vector<std::uint8_t>(128, 255)));
  const auto files_of = [&](const std::string& line) {
    INFO(line);
    std::filesystem::remove_all(dir / "out");
    REQUIRE(run_tool(dir, words_of(line)).exit_code == 0);
    const json how = json::parse(text_of_file(dir / "out/how.json"));
    REQUIRE(how["runs"].size() == 1);
    std::vector<std::string> files;
    for (const json& file : how["runs"][0]["files"]) files.push_back(file["file"]);
    return files;
  };
  using Files = std::vector<std::string>;
  CHECK(files_of("convert panes/pane-1.png --to lab --depth 16 -o out") == Files{});
  CHECK(files_of("mask panes/pane-1.png --where gray>3 --background gray --and on.png --within "
                 "on.png -o out") == Files{"on.png", "on.png"});
  CHECK(files_of("mask panes/pane-1.png --where gray>3 --background panes/pane-2.png -o out") ==
        Files{"panes/pane-2.png"});
}

TEST_CASE("a folder may be called as a command, a channel or a shard is", "[cli][many][how]") {
  const TempDir dir;
  write_panes(dir);
  const std::vector<std::pair<std::string, std::string>> runs{
      {"inspect panes --channels lab.l", "inspect"},
      {"histogram panes --channels lab --figures none", "lab"},
      {"mask panes --where \"hsv.s > 20\" --write mask", "mask"}};
  for (const auto& [line, folder] : runs) {
    INFO(line);
    REQUIRE(run_tool(dir, with(words_of(line), {"-o", folder})).exit_code == 0);
    CHECK_THAT(text_of_file(dir / folder / "how.json"), !Catch::Contains("{out}"));
    REQUIRE(run_tool(dir, {"run", folder + "/how.json", "-o", "again-" + folder}).exit_code == 0);
    CHECK(contents_of(dir / ("again-" + folder)) == contents_of(dir / folder));
  }
  // 2/2 begins as paths into the folder 2 do.
  const Words all = words_of("inspect panes --recursive -q");
  REQUIRE(run_tool(dir, with(all, {"-o", "whole"})).exit_code == 0);
  for (const char* part : {"1", "2"})
    REQUIRE(run_tool(dir, with(all, {"--shard", std::string(part) + "/2", "-o", part})).exit_code ==
            0);
  REQUIRE(run_tool(dir, {"gather", "1", "2", "-o", "all"}).exit_code == 0);
  CHECK(contents_of(dir / "all") == contents_of(dir / "whole"));
  // A folder below that is called alike.
  REQUIRE(run_tool(dir, words_of("inspect panes --recursive -o north")).exit_code == 0);
  const json how = json::parse(text_of_file(dir / "north/how.json"));
  for (const json& output : how["runs"][0]["outputs"])
    CHECK(std::filesystem::exists(dir / "north" / output.get<std::string>()));
  // The folder itself, where it is what is meant.
  REQUIRE(
      run_tool(dir, words_of("mask panes/pane-1.png --where \"hsv.s > 20\" --write mask -o out"))
          .exit_code == 0);
  REQUIRE(run_tool(dir, words_of("measure out --image panes -o out --write sizes")).exit_code == 0);
  CHECK_THAT(text_of_file(dir / "out/how.json"), Catch::Contains("\"{out}\""));
}

TEST_CASE("a run that is done again takes the place of the one before", "[cli][many][how]") {
  const TempDir dir;
  write_panes(dir);
  const auto runs = [&] { return json::parse(text_of_file(dir / "out/how.json"))["runs"]; };
  const Words mask{"mask", "panes/pane-1.png", "--figures", "none", "-o",
                   "out",  "--where",          "gray > 100"};
  CHECK(run_tool(dir, mask).exit_code == 0);
  CHECK(run_tool(dir, {"inspect", "panes/pane-1.png", "-o", "out"}).exit_code == 0);
  CHECK(runs().size() == 2);
  CHECK(run_tool(dir, with(mask, {"--write", "mask"})).exit_code == 0);
  REQUIRE(runs().size() == 3);
  CHECK(runs()[0]["outputs"] == json{"pane-1.cutout.png", "pane-1.coverage.csv"});
  CHECK(run_tool(dir, mask).exit_code == 0);
  REQUIRE(runs().size() == 2);
  CHECK(runs()[1]["command"] == "mask");
  CHECK(runs()[1]["outputs"] ==
        json{"pane-1.mask.png", "pane-1.cutout.png", "pane-1.coverage.csv"});
  // A file of that name that is none of ours stays.
  put_text(dir / "out/how.json", "{\"note\": 1}");
  check_error(run_tool(dir, {"inspect", "panes/pane-1.png", "-o", "out", "-q"}), 1,
              "out/how.json: is no record of runs and is not replaced; move it away");
  CHECK(text_of_file(dir / "out/how.json") == "{\"note\": 1}");
}

TEST_CASE("a how.json that was edited is refused, whatever is wrong in it", "[cli][many][how]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 2, 1, {1, 2, 3, 200, 100, 0});
  summary_of(run_tool(dir, {"inspect", "a.png", "-o", "out", "--summary", "json"}));
  const json good = json::parse(text_of_file(dir / "out/how.json"));
  std::vector<json> bad;
  for (const auto& [key, value] : good["runs"][0].items()) {
    if (key == "seed") continue;  // told, never read
    for (const json& other : {json(7), json(nullptr), json{{"a", 1}}, json{1, 2}}) {
      bad.push_back(good);
      bad.back()["runs"][0][key] = other;
    }
  }
  for (const json& runs : {json(7), json{{"a", 1}}, json{1}}) {
    bad.push_back(good);
    bad.back()["runs"] = runs;
  }
  for (const json& how : bad) {
    INFO(how.dump());
    put_text(dir / "out/how.json", how.dump());
    check_error(run_tool(dir, {"run", "out/how.json", "-o", "again"}), 1,
                "out/how.json: is damaged");
    check_error(run_tool(dir, {"report", "out"}), 1, "out/how.json: is damaged");
    check_error(run_tool(dir, {"mask", "a.png", "--auto", "gray", "-o", "out", "-q"}), 1,
                "out/how.json: is damaged");
    CHECK(text_of_file(dir / "out/how.json") == how.dump());
    check_nothing_in(dir, "again");
  }
  for (const json& name : {json(3), json("model")}) {
    json how = good;
    how["chalcedony"] = name;
    put_text(dir / "out/how.json", how.dump());
    check_error(run_tool(dir, {"report", "out"}), 1, "out/how.json: is no record of runs");
  }
}

TEST_CASE("results of a map that was made again are told, and are not made again as they were",
          "[cli][many][how][report]") {
  const TempDir dir;
  write_panes(dir);
  const auto do_line = [&](const std::string& line) {
    INFO(line);
    REQUIRE(run_tool(dir, words_of(line)).exit_code == 0);
  };
  const std::string select = "mask panes/pane-1.png --figures none --write mask -o out --where ",
                    tidy = "tidy out/pane-1.mask.png --steps invert --figures none -o out",
                    measure = "measure out/pane-1.mask.tidy.png --figures none -o below";
  do_line(select + "gray>100");
  do_line(tidy);
  do_line(measure);
  const std::string recorded = text_of_file(dir / "out/how.json");
  do_line(select + "gray>100");  // the same again: nothing has changed
  CHECK(text_of_file(dir / "out/how.json") == recorded);
  do_line("run out/how.json -o again");
  CHECK(contents_of(dir / "again") == contents_of(dir / "out"));

  const auto report = [&] {
    return run_tool(dir, words_of("report . -o page.html --summary json"));
  };
  CHECK(summary_of(report())["outdated"].empty());
  CHECK_THAT(text_of_file(dir / "page.html"), !Catch::Contains("<p class=\"outdated\">"));

  do_line(select + "gray>120");
  check_error(run_tool(dir, words_of("run out/how.json -o third")), 1,
              "out/pane-1.mask.png: was written again by 'mask' after 'tidy' had read it; run "
              "'tidy' anew first");
  CHECK_FALSE(std::filesystem::exists(dir / "third"));
  const Outcome told = report();
  const json outdated = summary_of(told)["outdated"];
  REQUIRE(outdated.size() == 2);  // folder by folder
  CHECK(outdated[0]["command"] == "measure");
  CHECK(outdated[0]["file"] == "pane-1.mask.tidy.png");
  CHECK(outdated[1] == json{{"command", "tidy"},
                            {"file", "pane-1.mask.png"},
                            {"typed",
                             "chalcedony tidy out/pane-1.mask.png --figures none --steps invert -o "
                             "out"}});
  CHECK(told.err ==
        "chalcedony: warning: 'tidy' has read pane-1.mask.png, which is another one now; do it "
        "anew: chalcedony tidy out/pane-1.mask.png --figures none --steps invert -o out\n");
  const std::string page = text_of_file(dir / "page.html");
  for (
      const char* text :
      {"<p class=\"outdated\">2 runs are outdated: results that they have read are other ones now. "
       "What they made is marked.</p>",
       "<h3>below/pane-1.mask.tidy.sizes.csv, outdated</h3>",
       "<p class=\"outdated\">pane-1.mask.png is another one now than this has read; do it "
       "anew.</p>",
       "<p class=\"outdated\">pane-1.mask.tidy.png, which this has read, is outdated; do this anew "
       "after it.</p>"})
    CHECK_THAT(page, Catch::Contains(text));

  do_line(tidy);
  CHECK(summary_of(report())["outdated"].size() == 1);  // measure has read the old one
  CHECK_THAT(text_of_file(dir / "page.html"), Catch::Contains("1 run is outdated: a result"));
  do_line(measure);
  CHECK(summary_of(report())["outdated"].empty());
  do_line("run out/how.json -o third");
  CHECK(contents_of(dir / "third") == contents_of(dir / "out"));
}
