// `run` at the built program: recipes that run, and what is said of those that do not.
#include <catch2/catch.hpp>
#include <filesystem>
#include <map>
#include <nlohmann/json.hpp>
#include <regex>

#include "tests/support/outcome.h"
#include "tests/support/panes.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr const char* kRecipe = R"(chalcedony: recipe
variables:
  blue: 200..260
options: {figures: none, hue-floor: 1}
steps:
  - name: learn
    command: train
    files: [a.png]
    options:
      sample: ["red=0,0,8,4", "blue=9,0,4,4"]
      write: model
  - name: map
    command: classify
    options: {model: "${out}/learn/model.json", blend: 0.5}
  - name: clean
    command: tidy
    input: map.classes
    options: {steps: drop 3}
  - command: mask
    options: {where: "hsv.h in ${blue}", invert: true, write: mask}
  - command: inspect
    options: {within: "${out}/mask/"}
)";

void write_pictures(const TempDir& dir) {
  write_stripes(dir / "a.png");
  write_stripes(dir / "b.png");
  put_text(dir / "r.yaml", kRecipe);
}

/// Every file below a folder; in journals without the times of the pictures.
std::map<std::string, std::string> timeless_contents_of(const std::filesystem::path& folder) {
  std::map<std::string, std::string> contents = contents_of(folder);
  for (auto& [name, text] : contents)
    if (std::filesystem::path(name).extension() == ".jsonl")
      text = std::regex_replace(text, std::regex("\"modified\":[0-9]+"), "");
  return contents;
}

}  // namespace

TEST_CASE("a recipe in shards is one run of it, byte by byte", "[cli][run][shards]") {
  const TempDir dir;
  write_pictures(dir);
  std::filesystem::create_directory(dir / "panes");
  for (const char* name : {"p-1", "p-2", "p-10", "p-11", "q"})
    write_stripes(dir / "panes" / (std::string(name) + ".png"));
  put_text(dir / "panes/p-5.png", "no picture");
  const auto in = [&](const std::string& out, std::vector<std::string> more) {
    more.insert(more.begin(), {"run", "r.yaml", "panes", "-o", out + "/", "-q"});
    return run_tool(dir, more);
  };
  CHECK(in("all", {}).exit_code == 1);
  std::filesystem::rename(dir / "all", dir / "one");
  // More shards than pictures in some steps: one of seven has none.
  for (int i = 1; i <= 7; ++i) in("s" + std::to_string(i), {"--shard", std::to_string(i) + "/7"});
  std::vector<std::string> gather{"gather", "-o", "all/", "--summary", "json"};
  for (const char* shard : {"s3", "s1", "s2", "s7", "s5", "s4", "s6"}) gather.push_back(shard);
  const json gathered = summary_of(run_tool(dir, gather));
  CHECK(gathered["runs"] ==
        json::array({{{"command", "run"}, {"shards", 7}, {"pictures", 6}, {"failed", 1}}}));
  const auto one = timeless_contents_of(dir / "one"), all = timeless_contents_of(dir / "all");
  CHECK(one.count("clean/q.classes.tidy.png") == 1);
  CHECK(one.count("map/failures.csv") == 1);
  CHECK_THAT(one.at("inspect/inspect.pictures.jsonl"),
             Catch::Contains(R"("with":[{"file":"all/mask/q.mask.png")"));
  for (const auto& [name, text] : one) {
    INFO(name);
    REQUIRE(all.count(name) == 1);
    CHECK(all.at(name) == text);
  }
  CHECK(all.size() == one.size());
  // It can be resumed as one run, and run again from its record.
  CHECK_THAT(in("all", {"--resume"}).err, !Catch::Contains("other options"));
  CHECK(timeless_contents_of(dir / "all") == one);
  CHECK(run_tool(dir, {"run", "all/how.json", "-o", "again", "-q"}).exit_code == 1);
  CHECK(text_of_file(dir / "again/clean/q.classes.tidy.png") == one.at("clean/q.classes.tidy.png"));
}

TEST_CASE("shards leave out what later steps alone need", "[cli][run][shards]") {
  const TempDir dir;
  std::filesystem::create_directory(dir / "panes");
  for (int i = 1; i <= 5; ++i) write_stripes(dir / "panes" / (std::to_string(i) + ".png"));
  put_text(dir / "r.yaml", R"(chalcedony: recipe
steps:
  - {name: small, command: reframe, keep: false, options: {crop: "0,0,12,8"}}
  - {name: planes, command: split, input: small, keep: false, options: {channels: "hsv.s,hsv.v"}}
  - {name: table, command: inspect, input: planes, options: {figures: none}}
)");
  CHECK(run_tool(dir, {"run", "r.yaml", "panes", "-o", "one", "-q"}).exit_code == 0);
  for (const char* shard : {"1", "2"})
    CHECK(run_tool(dir, {"run", "r.yaml", "panes", "-o", std::string("s") + shard, "--shard",
                         std::string(shard) + "/2", "-q"})
              .exit_code == 0);
  CHECK(run_tool(dir, {"gather", "s1", "s2", "-o", "all"}).exit_code == 0);
  CHECK_FALSE(exists(dir / "all/planes"));
  // The folders that are gone have other names each time; the order is that of one run.
  const auto names = [&](const char* table) {
    std::vector<std::string> rows;
    for (auto row : rows_of(dir / table)) {
      row["picture"] = std::filesystem::path(row.at("picture")).filename().string();
      for (const auto& [column, value] : row) rows.push_back(column + "=" + value);
    }
    return rows;
  };
  const auto rows = names("one/table/statistics.csv");
  CHECK(rows.size() > 100);
  CHECK(names("all/table/statistics.csv") == rows);
}

TEST_CASE("what cannot be divided is said before anything runs", "[cli][run][shards]") {
  const TempDir dir;
  write_pictures(dir);
  const auto refused = [&](const std::string& steps, const std::string& message) {
    put_text(dir / "x.yaml", "chalcedony: recipe\nsteps:\n" + steps);
    check_error(run_tool(dir, {"run", "x.yaml", "a.png", "-o", "out", "--shard", "1/2"}), 1,
                message);
    CHECK_FALSE(exists(dir / "out"));
  };
  refused("  - {name: groups, command: cluster, options: {k: 2}}\n",
          "x.yaml:3:29: the step 'groups' makes one result of all pictures");
  refused(
      "  - {name: c, command: convert, options: {to: lab}}\n"
      "  - {name: pal, command: cluster, input: c, options: {k: 2}}\n",
      "x.yaml:4:26: the step 'pal' makes one result of all pictures");
  refused("  - {name: c, command: inspect, files: [a.png]}\n",
          "no step takes the pictures of the run");
  refused(
      "  - {name: c, command: convert, options: {to: hsv}}\n"
      "  - {name: d, command: convert, options: {to: lab}}\n"
      "  - {name: i, command: inspect, input: [c, d]}\n",
      "the step 'i' takes the pictures of several steps");
  CHECK(run_tool(dir, {"inspect", "a.png", "-o", "r"}).exit_code == 0);
  check_error(run_tool(dir, {"run", "r/how.json", "-o", "out", "--shard", "1/2"}), 2,
              "a record is run as it is");
  // Steps that every machine does whole must be alike.
  put_text(dir / "y.yaml", R"(chalcedony: recipe
steps:
  - {name: learn, command: train, files: [a.png], options: {sample: ["x=0,0,4,4", "y=9,0,4,4"]}}
  - {name: map, command: classify, options: {model: "${out}/learn/model.json", figures: none}}
)");
  run_tool(dir, {"run", "y.yaml", "a.png", "b.png", "-o", "s1", "--shard", "1/2", "-q"});
  write_rgb(dir / "a.png", 20, 10, random_bytes(600));
  run_tool(dir, {"run", "y.yaml", "a.png", "b.png", "-o", "s2", "--shard", "2/2", "-q"});
  check_error(run_tool(dir, {"gather", "s1", "s2", "-o", "all"}), 1,
              "s2/learn: was not made as s1/learn; run the shards on the same files");
}

TEST_CASE("the steps of a recipe do what the commands do", "[cli][run]") {
  const TempDir dir;
  write_pictures(dir);
  const json done = summary_of(
      run_tool(dir, {"run", "r.yaml", "a.png", "b.png", "-o", "out", "--summary", "json"}));
  REQUIRE(done["steps"].size() == 5);
  CHECK(done["recipe"] == "r.yaml");
  CHECK(done["steps"][1]["command"] ==
        "chalcedony classify a.png b.png --model out/learn/model.json --blend 0.5 --figures none "
        "--hue-floor 1 -o out/map/");
  // The same commands, typed.
  for (const json& step : done["steps"]) {
    auto words = words_of(step["command"].get<std::string>());
    words.erase(words.begin());
    for (std::string& word : words)
      if (word.starts_with("out/") && word.ends_with("/")) word = "typed" + word.substr(3);
    summary_of(run_tool(dir, [&] {
      auto all = words;
      all.insert(all.end(), {"--summary", "json"});
      return all;
    }()));
  }
  for (const json& output : done["outputs"]) {
    const std::string path = output.get<std::string>();
    INFO(path);
    CHECK(text_of_file(dir / path) == text_of_file(dir / ("typed" + path.substr(3))));
  }
  CHECK(std::filesystem::exists(dir / "out/clean/b.classes.tidy.png"));
  CHECK(std::filesystem::exists(dir / "out/mask/a.mask.png"));
  CHECK_FALSE(std::filesystem::exists(dir / "out/mask/a.cutout.png"));
}

TEST_CASE("a recipe can be looked at first, and its variables set", "[cli][run]") {
  const TempDir dir;
  write_pictures(dir);
  const Outcome plan = run_tool(dir, {"run", "r.yaml", "a.png", "-o", "out", "--dry-run", "--set",
                                      "blue=0..30", "--figures", "svg"});
  CHECK(plan.exit_code == 0);
  CHECK_THAT(
      plan.out,
      Catch::Contains("$ chalcedony tidy \"<map.classes>\" --steps \"drop 3\" --figures svg -o "
                      "out/clean/"));
  CHECK_THAT(plan.out, Catch::Contains("--where \"hsv.h in 0..30\" --invert"));
  check_nothing_in(dir, "out");
}

TEST_CASE("a recipe is checked whole before anything runs", "[cli][run]") {
  const TempDir dir;
  write_pictures(dir);
  const std::string head = "chalcedony: recipe\nsteps:\n  - command: mask\n";
  const std::vector<std::pair<std::string, std::string>> wrong{
      {"steps: []", "w.yaml:1:1: is no recipe: it does not begin with 'chalcedony: recipe'"},
      {"a: [", "w.yaml:1:"},
      {"chalcedony: recipe", "w.yaml:1:1: has no steps"},
      {"chalcedony: recipe\nstep: 1", "w.yaml:2:1: there is no key 'step'; did you mean 'steps'?"},
      {head + "    options: {were: gray > 3}",
       "w.yaml:4:15: mask has no option 'were'; did you mean 'where'?"},
      {head + "    options: {where: true}", "w.yaml:4:15: the option 'where' needs a value"},
      {head + "    options: {invert: 3}", "w.yaml:4:15: the option 'invert' has no value"},
      {head + "    options: {auto: [a, b]}", "w.yaml:4:15: the option 'auto' has one value"},
      {head + "    options: {where: \"${x}\"}", "w.yaml:4:22: there is no variable 'x'"},
      {head + "    options: [1]", "w.yaml:4:14: options are no list of name: value"},
      {head + "    option: {}", "w.yaml:4:5: there is no key 'option'; did you mean 'options'?"},
      {head + "    options: {output: x}", "w.yaml:4:15: mask has no option 'output'"},
      {"chalcedony: recipe\nsteps:\n  - command: tidy\n    options: {let: x=gray}\n",
       "w.yaml:4:15: 'let' means nothing here: tidy works on whole masks and class maps; leave it"},
      {head + "  - command: mask", "w.yaml:4:14: two steps are called 'mask'"},
      {head + "    name: a.b", "w.yaml:4:11: 'a.b' cannot be the name of a step"},
      {head + "    input: mask", "w.yaml:4:12: there is no earlier step 'mask'"},
      {head + "    input: []\n    files: [a]", "w.yaml:5:12: the step has an input and files"},
      {"chalcedony: recipe\nsteps:\n  - command: maks\n",
       "w.yaml:3:14: there is no command 'maks' for a step; did you mean 'mask'?"},
      {"chalcedony: recipe\noptions: {boxes: 2}\nsteps:\n  - command: mask\n",
       "w.yaml:2:11: no step has an option 'boxes'"},
      {"chalcedony: recipe\nsteps:\n  - name: x\n", "w.yaml:3:5: the step has no command"}};
  for (const auto& [text, says] : wrong) {
    put_text(dir / "w.yaml", text);
    INFO(text);
    check_error(run_tool(dir, {"run", "w.yaml", "a.png", "-o", "out"}), 1, says);
  }
  check_error(run_tool(dir, {"run", "no.yaml", "a.png", "-o", "out"}), 1, "no.yaml");
  check_error(run_tool(dir, {"run", "a.png", "a.png", "-o", "out"}), 1,
              ": is no YAML; check quotes and indents");
  check_error(run_tool(dir, {"run", "r.yaml", "a.png"}), 2, "run needs -o");
  check_error(run_tool(dir, {"run", "r.yaml", "-o", "out"}), 2, "takes the pictures of the run");
  check_error(run_tool(dir, {"run", "r.yaml", "a.png", "-o", "out", "--set", "x=1"}), 2,
              "--set: the recipe has no variable 'x'; use one of blue");
  check_error(run_tool(dir, {"run", "r.yaml", "a.png", "-o", "out", "--region", "0,0,1,1"}), 2,
              "it belongs into the recipe");
  check_nothing_in(dir, "out");
}

TEST_CASE("a step that cannot go on ends the run, a bad picture does not", "[cli][run]") {
  const TempDir dir;
  write_pictures(dir);
  put_text(dir / "bad.png", "no picture");
  const Outcome some =
      run_tool(dir, {"run", "r.yaml", "a.png", "bad.png", "-o", "out", "--summary", "json"});
  CHECK(some.exit_code == 1);
  CHECK(json::parse(some.out)["failed"].size() == 3);  // in classify, mask and inspect
  CHECK(std::filesystem::exists(dir / "out/clean/a.classes.tidy.png"));
  put_text(dir / "w.yaml",
           "chalcedony: recipe\nsteps:\n  - command: mask\n    options: {where: gray >}\n");
  check_error(run_tool(dir, {"run", "w.yaml", "a.png", "-o", "no"}), 1,
              "w.yaml:3:14: step 'mask': --where");
  put_text(dir / "w.yaml",
           "chalcedony: recipe\nsteps:\n  - command: mask\n    options: {where: gray > 3, write: "
           "mask}\n  - command: tidy\n    input: mask.cutout\n    options: {steps: drop 3}\n");
  check_error(run_tool(dir, {"run", "w.yaml", "a.png", "-o", "no", "-q"}), 1,
              "w.yaml:6:12: the step 'mask' wrote no 'cutout' picture");
}

TEST_CASE("steps that need nothing of each other run at once, to the same end", "[cli][run]") {
  const TempDir dir;
  write_pictures(dir);
  const json two = summary_of(run_tool(dir, {"run", "r.yaml", "a.png", "b.png", "-o", "two",
                                             "--threads", "2", "--summary", "json"}));
  const json one = summary_of(run_tool(dir, {"run", "r.yaml", "a.png", "b.png", "-o", "one",
                                             "--threads", "1", "--summary", "json"}));
  REQUIRE(one["outputs"].size() == two["outputs"].size());
  for (std::size_t i = 0; i < one["outputs"].size(); ++i) {
    const auto file = one["outputs"][i].get<std::string>().substr(4);
    CHECK(two["outputs"][i] == "two/" + file);
    INFO(file);
    if (file.ends_with(".json")) continue;
    std::string its_two = text_of_file(dir / ("two/" + file));
    // A table of what an earlier step made names it with its folder.
    if (file.ends_with(".csv")) its_two = std::regex_replace(its_two, std::regex("two/"), "one/");
    CHECK(text_of_file(dir / ("one/" + file)) == its_two);
  }
  // The first step that fails is told, whatever else ran beside it.
  put_text(dir / "bad.yaml",
           "chalcedony: recipe\nsteps:\n"
           "  - {command: mask, options: {where: gray > 3}}\n"
           "  - {command: classify, options: {model: none.json}}\n"
           "  - {command: inspect}\n");
  check_error(run_tool(dir, {"run", "bad.yaml", "a.png", "-o", "bad"}), 1, "none.json");
}

TEST_CASE("what a step does not keep is there for later steps only", "[cli][run]") {
  const TempDir dir;
  write_pictures(dir);
  put_text(dir / "k.yaml",
           "chalcedony: recipe\noptions: {figures: none}\nsteps:\n"
           "  - {name: soft, command: smooth, keep: false, options: {filter: median, radius: 1}}\n"
           "  - {command: mask, input: soft, options: {where: srgb.r > 150, write: mask}}\n");
  const json done =
      summary_of(run_tool(dir, {"run", "k.yaml", "a.png", "-o", "out", "--summary", "json"}));
  CHECK(done["outputs"] == json{"out/mask/a.smooth.mask.png"});
  CHECK_FALSE(std::filesystem::exists(dir / "out/soft"));
  CHECK(std::filesystem::exists(dir / "out/mask/a.smooth.mask.png"));
  put_text(dir / "k.yaml", "chalcedony: recipe\nsteps:\n  - {command: inspect, keep: perhaps}\n");
  check_error(run_tool(dir, {"run", "k.yaml", "a.png", "-o", "no"}), 1,
              "k.yaml:3:30: 'perhaps' is neither true nor false");
}

TEST_CASE("a step takes its options from a file that an earlier step wrote", "[cli][run][config]") {
  const TempDir dir;
  write_pictures(dir);
  std::vector<std::uint8_t> labels;
  for (int i = 0; i < 20 * 10; ++i)
    labels.push_back(static_cast<std::uint8_t>(i % 20 < 8 ? 1 : i % 20 < 14 ? 2 : 0));
  write_labels(dir / "a.classes.png", 20, labels,
               {{1, "left", "#c02030"}, {2, "right", "#2030c0"}});
  put_text(dir / "rules.yaml",
           "chalcedony: recipe\n"
           "options: {figures: none}\n"
           "steps:\n"
           "  - name: rules\n"
           "    command: apart\n"
           "    files: [a.png]\n"
           "    options: {classes: a.classes.png, let: \"warmth=lab.a + lab.b\", "
           "channels: \"warmth,lab.l\"}\n"
           "  - name: map\n"
           "    command: slice\n"
           "    options: {config: \"${out}/rules/a.apart.yaml\"}\n");
  REQUIRE(run_tool(dir, {"run", "rules.yaml", "a.png", "b.png", "-o", "out"}).exit_code == 0);
  REQUIRE(run_tool(dir, {"slice", "a.png", "b.png", "--config", "out/rules/a.apart.yaml",
                         "--figures", "none", "-o", "typed"})
              .exit_code == 0);
  for (const char* result : {"a.slices.png", "b.slices.csv", "slices.csv"})
    CHECK(text_of_file(dir / "out/map" / result) == text_of_file(dir / "typed" / result));
  CHECK_THAT(text_of_file(dir / "out/map/how.json"), Catch::Contains("warmth=lab.a + lab.b"));
  // Its record runs all of it again.
  REQUIRE(run_tool(dir, {"run", "out/how.json", "-o", "again"}).exit_code == 0);
  CHECK(text_of_file(dir / "again/map/b.slices.csv") == text_of_file(dir / "out/map/b.slices.csv"));
  // Other rules are other options, so that nothing is left as it was.
  put_text(dir / "rules.yaml", std::regex_replace(text_of_file(dir / "rules.yaml"),
                                                  std::regex("warmth,lab.l"), "lab.l"));
  const json resumed = summary_of(run_tool(
      dir, {"run", "rules.yaml", "a.png", "b.png", "-o", "out", "--resume", "--summary", "json"}));
  CHECK_FALSE(resumed["steps"][1]["summary"].contains("unchanged"));
}

TEST_CASE("a file of options that is there is checked before anything runs", "[cli][run][config]") {
  const TempDir dir;
  write_pictures(dir);
  const auto recipe_with = [&](const std::string& file) {
    put_text(dir / "r.yaml",
             "chalcedony: recipe\nsteps:\n  - command: inspect\n  - command: slice\n"
             "    options: {config: " +
                 file + "}\n");
    return run_tool(dir, {"run", "r.yaml", "a.png", "-o", "out"});
  };
  put_text(dir / "our.yaml", "wher: x\n");
  check_error(recipe_with("our.yaml"), 1, "our.yaml:1:1: no command has an option 'wher'; ");
  put_text(dir / "our.yaml", "where: true\n");
  check_error(recipe_with("our.yaml"), 1, "our.yaml:1:1: the option 'where' needs a value");
  CHECK_FALSE(std::filesystem::exists(dir / "out"));
  check_error(recipe_with("none.yaml"), 1, "none.yaml: no such file");
  check_error(recipe_with("[a.yaml, b.yaml]"), 1, "the option 'config' has one value");
}
