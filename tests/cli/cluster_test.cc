// `cluster` at the built program: groups, their number, names, several pictures, deep pictures, and
// what it refuses.
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <nlohmann/json.hpp>
#include <set>

#include "tests/support/outcome.h"
#include "tests/support/panes.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

TEST_CASE("flat colors are found exactly, by share", "[cli][cluster]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  for (const char* method : {"k-means", "gaussian-mixture"}) {
    INFO(method);
    const json found =
        summary_of(run_tool(dir, {"cluster", "stripes.png", "--method", method, "--k", "4", "-o",
                                  "out", "--figures", "none", "--summary", "json"}));
    const json& groups = found["clusters"]["groups"];
    REQUIRE(groups.size() == 4);
    CHECK(groups[0]["color"] == "#c81e28");
    CHECK(groups[0]["pixels"] == 80);
    CHECK(groups[1]["color"] == "#1e3cb4");
    CHECK(groups[3]["percent"] == 10.0);
    CHECK(groups[2]["spread"] < 0.01);
    CHECK(found["clusters"]["points"] == 4);
    CHECK(found["inputs"][0]["lone_percent"] == 0.0);
    const auto labels = labels_in(dir / "out/stripes.clusters.png");
    CHECK(labels[0] == 1);
    CHECK(labels[8] == 2);
    CHECK(labels[14] == 3);
    CHECK(labels[199] == 4);
    CHECK(bytes_in(dir / "out/stripes.recolored.png") == bytes_in(dir / "stripes.png"));
  }
  CHECK(bytes_in(dir / "out/stripes.certainty.png") == std::vector<std::uint8_t>(200, 255));
  // Light before dark on request.
  const json light = summary_of(run_tool(
      dir, {"cluster", "stripes.png", "--k", "4", "--order", "lightness", "--summary", "json"}));
  CHECK(light["clusters"]["groups"][0]["color"] == "#f0f0eb");
  CHECK(light["clusters"]["groups"][3]["color"] == "#141414");
}

TEST_CASE("a range says what speaks for each number, and stops where colors end",
          "[cli][cluster]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  const json found = summary_of(
      run_tool(dir, {"cluster", "stripes.png", "--k", "1..9", "-o", "out", "--summary", "json"}));
  REQUIRE(found["choices"].size() == 4);
  CHECK(found["most_k"] == 4);
  write_rgb(dir / "plain.png", 1, 1, {175, 108, 23});
  CHECK_THAT(
      run_tool(dir, {"cluster", "plain.png", "--k", "1..3"}).out,
      Catch::StartsWith("there are too few different colors for more than 1 group\n1 group"));
  CHECK(found["suggestion"]["k"] == 4);
  CHECK(found["choices"][3]["explained_percent"] == Approx(100));
  CHECK(found["choices"][3]["silhouette"] == Approx(1));
  CHECK_THAT(found["suggestion"]["reason"].get<std::string>(),
             Catch::Contains("best for 4 groups (1.00)"));
  const auto lines = lines_of(dir / "out/clusters.criteria.csv");
  REQUIRE(lines.size() == 5);
  CHECK_THAT(lines[0], Catch::StartsWith("k,sum_of_squares,explained_percent,silhouette"));
  CHECK(split(lines[4], ',')[0] == "4");
  const auto files = dir.files();
  for (const char* name : {"out/criteria.figure.png", "out/stripes.choices.figure.png",
                           "out/stripes.clusters.figure.png", "out/clusters.model.json"})
    CHECK(files.count(name) == 1);
}

TEST_CASE("groups get names, later too, and the map follows", "[cli][cluster]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  run_tool(dir, {"cluster", "stripes.png", "--k", "4", "-o", "out", "--figures", "none"});
  const json named = summary_of(
      run_tool(dir, {"cluster", "stripes.png", "--model", "out/clusters.model.json", "--name",
                     "1=ruby", "--merge", "rest=2,4", "-o", "named", "--summary", "json"}));
  const json& classes = named["inputs"][0]["classes"];
  REQUIRE(classes.size() == 3);
  CHECK(classes[0]["name"] == "ruby");
  CHECK(classes[1]["name"] == "rest");
  CHECK(classes[1]["pixels"] == 80);
  CHECK(classes[2]["name"] == "group 3");
  const auto labels = labels_in(dir / "named/stripes.clusters.png");
  CHECK(labels[8] == 2);
  CHECK(labels[199] == 2);
  CHECK(labels[14] == 3);
  // Groups merged at once get the same color: the mean of their pixels.
  const json at_once = summary_of(run_tool(
      dir, {"cluster", "stripes.png", "--k", "4", "--merge", "rest=2,4", "--summary", "json"}));
  CHECK(at_once["inputs"][0]["classes"][1]["color"] == classes[1]["color"]);
  CHECK(classes[1]["color"] == "#1b3488");  // 60 pixels of #1e3cb4 and 20 of #141414
  // The same map by classify, with the model as it was written.
  const json again =
      summary_of(run_tool(dir, {"classify", "stripes.png", "--model", "named/clusters.model.json",
                                "-o", "again", "--summary", "json"}));
  CHECK(again["inputs"][0]["classes"][1]["name"] == "rest");
  CHECK(labels_in(dir / "again/stripes.classes.png") == labels);
  check_error(run_tool(dir, {"cluster", "stripes.png", "--k", "4", "--name", "5=x"}), 1,
              "there is no group 5");
  check_error(
      run_tool(dir, {"cluster", "stripes.png", "--model", "out/clusters.model.json", "--k", "3"}),
      2, "--k is for finding groups");
}

TEST_CASE("a start that leads nowhere good is regrouped, and the summary says so",
          "[cli][cluster]") {
  const TempDir dir;
  // Mostly shades of red, and eight other colors with as many shades on few pixels.
  const auto shades = random_bytes(100 * 100 * 3);
  std::vector<std::uint8_t> rgb;
  for (int p = 0; p < 100 * 100; ++p) {
    const int color = p < 8000 ? 0 : 1 + (p - 8000) / 250;
    const std::array<int, 3> middle{color == 0 ? 200 : 20 + 100 * (color % 2),
                                    20 + 100 * (color / 2 % 2), 20 + 100 * (color / 4 % 2)};
    for (std::size_t c = 0; c < 3; ++c)
      rgb.push_back(
          static_cast<std::uint8_t>(middle[c] + shades[3 * static_cast<std::size_t>(p) + c] % 9));
  }
  write_rgb(dir / "red.png", 100, 100, rgb);
  const std::vector<std::string> words{"cluster", "red.png", "--k",        "9",
                                       "--start", "random",  "--restarts", "1"};
  const Outcome told = run_tool(dir, words);
  CHECK_THAT(told.out, Catch::Contains("kept: 1, regrouped to what it says"));
  std::vector<std::string> asked = words;
  asked.insert(asked.end(), {"--summary", "json"});
  const json clusters = summary_of(run_tool(dir, asked))["clusters"];
  CHECK(clusters["runs"][0]["regrouped"] == true);
  CHECK(clusters["runs"][0]["sum_of_squares"] == clusters["sum_of_squares"]);
  // Every color has its group.
  for (const json& group : clusters["groups"]) CHECK(group["spread"] < 5);
}

TEST_CASE("the curves of the number of groups stand over whole numbers", "[cli][cluster]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  const Outcome run = run_tool(dir, {"cluster", "stripes.png", "--k", "1..3", "-o", "out",
                                     "--write", "figure", "--figures", "svg"});
  INFO(run.err);
  REQUIRE(run.exit_code == 0);
  const std::string figure = text_of_file(dir / "out/criteria.figure.svg");
  for (const char* number : {">1</text>", ">2</text>", ">3</text>"})
    CHECK_THAT(figure, Catch::Contains(number));
  CHECK_THAT(figure, !Catch::Contains(">1.5</text>") && !Catch::Contains(">2.5</text>"));
}

TEST_CASE("several pictures share one model and have shares of their own", "[cli][cluster]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 2, 1, {255, 0, 0, 255, 0, 0});
  write_rgb(dir / "b.png", 4, 1, {255, 0, 0, 0, 0, 255, 0, 0, 255, 0, 0, 255});
  const json found = summary_of(run_tool(dir, {"cluster", "a.png", "b.png", "--k", "2", "-o", "out",
                                               "--figures", "none", "--summary", "json"}));
  CHECK(found["clusters"]["pixels"] == 6);
  CHECK(found["clusters"]["groups"][0]["percent"] == 50.0);
  // Of equal shares the lighter group is first.
  CHECK(found["clusters"]["groups"][0]["color"] == "#ff0000");
  CHECK(found["inputs"][0]["classes"][0]["percent"] == 100.0);
  CHECK(found["inputs"][1]["classes"][1]["percent"] == 75.0);
  CHECK(lines_of(dir / "out/a.clusters.csv") ==
        std::vector<std::string>{"index,class,color,pixels,share_percent",
                                 "1,group 1,#ff0000,2,100", "2,group 2,#0000ff,0,0"});
  const auto lines = lines_of(dir / "out/clusters.csv");
  REQUIRE(lines.size() == 5);
  CHECK(lines[4] == "b.png,2,group 2,#0000ff,3,75");
  run_tool(dir, {"cluster", "a.png", "--k", "1", "-o", "one", "--figures", "none"});
  CHECK(dir.files().count("one/a.clusters.csv") == 1);
  CHECK(dir.files().count("one/clusters.csv") == 0);
}

TEST_CASE("the same bytes for any number of threads, and from seed to seed only by the seed",
          "[cli][cluster]") {
  const TempDir dir;
  copy_demo(dir, "panel-b.png", "panel.png");
  const auto run = [&](const std::string& out, const std::string& threads, const char* method) {
    run_tool(dir, {"cluster", "panel.png", "--method", method, "--k", "5", "-o", out, "--threads",
                   threads, "--figures", "none"});
  };
  for (const char* method : {"k-means", "gaussian-mixture"}) {
    run("one", "1", method);
    run("four", "4", method);
    for (const char* file : {"panel.clusters.png", "panel.recolored.png", "clusters.model.json",
                             "clusters.centers.csv"})
      CHECK(text_of_file(dir / (std::string("one/") + file)) ==
            text_of_file(dir / (std::string("four/") + file)));
  }
}

TEST_CASE("pictures of every kind are grouped at once as one after the other", "[cli][cluster]") {
  const TempDir dir;
  for (const char* panel : {"panel-a.png", "panel-b.png", "panel-c.png"}) copy_demo(dir, panel);
  for (const char* line : {"convert panel-c.png --to srgb --depth 16 -o deep.png",
                           "convert panel-b.png --to display-p3 -o wide.png",
                           "histogram panel-a.png --colors -o counted"})
    REQUIRE(run_tool(dir, words_of(line)).exit_code == 0);
  const auto run = [&](const std::string& threads) {
    json summary = summary_of(run_tool(
        dir,
        words_of("cluster panel-a.png deep.png wide.png counted/panel-a.colors.csv panel-b.png "
                 "panel-c.png --k 3..4 --restarts 2 --figures none --summary json -o out "
                 "--threads " +
                 threads)));
    auto contents = contents_of(dir / "out");
    contents.erase("how.json");
    return std::pair(summary, contents);
  };
  const auto [summary, contents] = run("1");
  CHECK(summary["inputs"].size() == 6);
  CHECK(summary["inputs"][4]["file"] == "panel-b.png");
  CHECK(summary["outputs"][0] == "out/panel-a.clusters.png");
  CHECK(summary["outputs"][3] == "out/deep.clusters.png");
  for (const char* threads : {"2", "5"}) CHECK(run(threads) == std::pair(summary, contents));
}

TEST_CASE("pictures of one content in 8 and 16 bits have the same groups", "[cli][cluster]") {
  const TempDir dir;
  std::vector<std::uint16_t> deep;
  std::vector<std::uint8_t> shallow;
  for (const std::uint8_t byte : random_bytes(3 * 60 * 40, 2)) {
    const auto rounded = static_cast<std::uint8_t>(byte / 32 * 32);
    shallow.push_back(rounded);
    deep.push_back(static_cast<std::uint16_t>(rounded * 257));
  }
  write_rgb(dir / "shallow.png", 60, 40, shallow);
  write_picture(dir / "deep.png", spec_of(60, 40, 3, SampleType::kU16), bytes_of(deep));
  std::vector<double> sums;
  for (const char* picture : {"shallow.png", "deep.png"}) {
    const json found = summary_of(
        run_tool(dir, {"cluster", picture, "--k", "1", "--features", "srgb", "--summary", "json"}));
    sums.push_back(found["clusters"]["sum_of_squares"]);
    CHECK(found["clusters"]["pixels"] == 2400);
    CHECK_FALSE(found["clusters"].contains("sampled"));
  }
  CHECK(sums[0] == Approx(sums[1]).epsilon(1e-7));
}

TEST_CASE("of more deep pixels than are held a seeded sample is drawn, and said",
          "[cli][cluster]") {
  const TempDir dir;
  const std::uint32_t width = 1100, height = 1000;
  std::vector<std::uint16_t> deep(std::size_t{3} * width * height);
  for (std::size_t i = 0; i < deep.size(); i += 3)
    deep[i] = deep[i + 1] = deep[i + 2] = i % 10 < 4 ? 10000 : 50000;
  write_picture(dir / "deep.png", spec_of(width, height, 3, SampleType::kU16), bytes_of(deep));
  const auto run = run_tool(dir, {"cluster", "deep.png", "--k", "2", "--summary", "json"});
  const json found = summary_of(run)["clusters"];
  CHECK(found["sampled"]["drawn"] == 1048576);
  CHECK(found["sampled"]["of"] == 1100000);
  CHECK(found["pixels"] == 1100000);
  CHECK(found["groups"][0]["percent"].get<double>() == Approx(60).margin(0.2));
}

TEST_CASE("units that differ are divided by their spread, which is said", "[cli][cluster]") {
  const TempDir dir;
  write_rgb(dir / "four.png", 4, 1, {0, 0, 0, 100, 100, 100, 200, 200, 200, 0, 0, 200});
  const auto scaling = [&](const std::vector<std::string>& more) {
    return summary_of(run_tool(dir, with({"cluster", "four.png", "--k", "2", "--features",
                                          "srgb.r,hsv.v", "--summary", "json"},
                                         more)))["clusters"];
  };
  const json spread = scaling({});
  CHECK(spread["scaling"] == "spread");
  CHECK(spread["divisors"][0].get<double>() == Approx(std::sqrt(50000 / 4.0 - 75.0 * 75.0)));
  CHECK(scaling({"--scaling", "range"})["divisors"][0] == 200.0);
  CHECK(scaling({"--scaling", "none"})["divisors"].empty());
  // Centers are in the units of the channels all the same.
  CHECK(spread["groups"][0]["center"][1].get<double>() <= 100);
}

TEST_CASE("pixels that do not count have no group and are transparent", "[cli][cluster]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  const json found =
      summary_of(run_tool(dir, {"cluster", "stripes.png", "--k", "2", "--region", "0,0,10,10", "-o",
                                "out", "--figures", "none", "--summary", "json"}));
  CHECK(found["inputs"][0]["excluded"]["outside_region"] == 100);
  CHECK(labels_in(dir / "out/stripes.clusters.png")[10] == 0);
  const auto rgba = bytes_in(dir / "out/stripes.recolored.png");
  CHECK(rgba[4 * 9 + 3] == 255);
  CHECK(std::vector<std::uint8_t>(rgba.begin() + 40, rgba.begin() + 44) ==
        std::vector<std::uint8_t>(4, 0));
}

TEST_CASE("the recolored picture is the same with and without its class map", "[cli][cluster]") {
  const TempDir dir;
  copy_demo(dir, "panel-c.png", "panel.png");
  for (const char* things : {"recolored", "classes,recolored"})
    summary_of(run_tool(dir, {"cluster", "panel.png", "--k", "5", "-o", things, "--write", things,
                              "--summary", "json"}));
  const auto alone = text_of_file(dir / "recolored/panel.recolored.png");
  CHECK(text_of_file(dir / "classes,recolored/panel.recolored.png") == alone);
  // Every pixel has its center's color: both are palettes of the same numbers.
  const auto labels = labels_in(dir / "classes,recolored/panel.clusters.png");
  const auto colors = bytes_in(dir / "recolored/panel.recolored.png");
  REQUIRE(colors.size() == 3 * labels.size());
  std::map<std::uint8_t, std::set<std::array<std::uint8_t, 3>>> seen;
  for (std::size_t i = 0; i < labels.size(); ++i)
    seen[labels[i]].insert({colors[3 * i], colors[3 * i + 1], colors[3 * i + 2]});
  CHECK(seen.size() == 5);
  for (const auto& [label, colors_of_label] : seen) CHECK(colors_of_label.size() == 1);
}

TEST_CASE("probability planes add up to one", "[cli][cluster]") {
  const TempDir dir;
  copy_demo(dir, "panel-c.png", "panel.png");
  summary_of(run_tool(dir, {"cluster", "panel.png", "--method", "gaussian-mixture", "--k", "3",
                            "--region", "0,0,100,40", "--probabilities", "16", "-o", "out",
                            "--figures", "none", "--summary", "json"}));
  std::vector<double> sums(100);
  for (const char* number : {"1", "2", "3"}) {
    PictureFile file =
        open_picture(dir / ("out/panel.probability-" + std::string(number) + ".png"), {});
    const auto codes = samples_of<std::uint16_t>(file);
    for (std::size_t x = 0; x < sums.size(); ++x) sums[x] += codes[x] / 65535.0;
  }
  for (const double sum : sums) CHECK(sum == Approx(1).margin(5e-5));
}

TEST_CASE("a model of a mixture knows how likely a pixel is, one of k-means does not",
          "[cli][cluster]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  for (const std::string method : {"k-means", "gaussian-mixture"})
    REQUIRE(run_tool(dir, words_of("cluster stripes.png --k 2 --figures none --method " + method +
                                   " -o " + method))
                .exit_code == 0);
  REQUIRE(run_tool(dir, words_of("cluster stripes.png --figures none -o again --model "
                                 "gaussian-mixture/clusters.model.json"))
              .exit_code == 0);
  CHECK(text_of_file(dir / "again/stripes.certainty.png") ==
        text_of_file(dir / "gaussian-mixture/stripes.certainty.png"));
  for (const std::string asked : {"--probabilities 16", "--write certainty"}) {
    CAPTURE(asked);
    const auto run = run_tool(dir, words_of("cluster stripes.png -o none " + asked +
                                            " --model k-means/clusters.model.json"));
    CHECK(run.exit_code == 1);
    CHECK(run.err.find("k-means/clusters.model.json: does not know how likely a pixel is in a "
                       "group; leave the certainty and the probabilities out, or give the model "
                       "of a mixture") != std::string::npos);
    CHECK_FALSE(std::filesystem::exists(dir / "none/stripes.clusters.png"));
  }
}

TEST_CASE("first centers are spread or drawn at random", "[cli][cluster]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  for (const std::string start : {"spread", "random"})
    CHECK(run_tool(dir, words_of("cluster stripes.png --k 4 --figures none --start " + start +
                                 " -o " + start))
              .exit_code == 0);
  // Four colors are found from wherever one begins.
  CHECK(text_of_file(dir / "spread/clusters.centers.csv") ==
        text_of_file(dir / "random/clusters.centers.csv"));
  check_error(run_tool(dir, words_of("cluster stripes.png --k 2 --start best")), 2,
              "--start: 'best' is not known");
}

TEST_CASE("cluster refuses what cannot be, says why, and leaves nothing", "[cli][cluster]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  write_rgb(dir / "flat.png", 3, 3, std::vector<std::uint8_t>(27, 77));
  write_rgb(dir / "pixel.png", 1, 1, {1, 2, 3});
  write_labels(dir / "nowhere.png", 20, std::vector<std::uint8_t>(200));
  const auto before = dir.files();
  struct Bad {
    std::vector<std::string> arguments;
    int code;
    const char* says;
  };
  const std::vector<Bad> table{
      {{"stripes.png", "--k", "5"}, 1, "there are too few different colors for 5 groups: 4"},
      {{"flat.png", "--k", "2"}, 1, "too few different colors for 2 groups: 1; ask for at most 1"},
      {{"pixel.png", "--k", "1", "--method", "gaussian-mixture"}, 1, "too few pixels"},
      {{"stripes.png", "--k", "0"}, 2, "--k"},
      {{"stripes.png", "--k", "5..3"}, 2, "--k: the range '5..3' is empty"},
      {{"stripes.png", "--method", "k-mean"}, 2, "k-means"},
      {{"stripes.png", "--shape", "round"}, 2, "--shape is for mixtures only"},
      {{"stripes.png", "--features", "lab.q"}, 2, "lab.q"},
      {{"stripes.png", "--features", "file.5"}, 1, "no channel file.5"},
      {{"stripes.png", "--space", "lab", "--features", "a,q"}, 2, "no channel is called 'q'"},
      {{"stripes.png", "--name", "ruby"}, 2, "--name"},
      {{"stripes.png", "--merge", "ruby=1,x"}, 2, "--merge"},
      {{"stripes.png", "--region", "50,50,5,5"}, 1, "stripes.png"},
      {{"stripes.png", "--within", "nowhere.png"}, 1, "no pixel"},
      {{"nothing.png"}, 1, "nothing.png"}};
  for (const Bad& bad : table) {
    std::vector<std::string> arguments{"cluster"};
    arguments.insert(arguments.end(), bad.arguments.begin(), bad.arguments.end());
    arguments.insert(arguments.end(), {"-o", "out"});
    check_error(run_tool(dir, arguments), bad.code, bad.says);
  }
  CHECK(dir.files() == before);
  // One group of one color is no mistake.
  const json one =
      summary_of(run_tool(dir, {"cluster", "pixel.png", "--k", "1", "--summary", "json"}));
  CHECK(one["clusters"]["groups"][0]["color"] == "#010203");
}

TEST_CASE("pixels that are not numbers are left out of the groups, and said", "[cli][cluster]") {
  const TempDir dir;
  std::vector<float> values;
  for (int i = 0; i < 30; ++i) {
    const float value = i % 10 == 0 ? std::nanf("") : i % 2 ? 0.9f : 0.2f;
    values.insert(values.end(), {value, 0.1f, 0.1f});
  }
  write_picture(dir / "holes.tif", spec_of(30, 1, 3, SampleType::kF32), bytes_of(values));
  for (const char* method : {"k-means", "gaussian-mixture"}) {
    const json found = summary_of(run_tool(dir, {"cluster", "holes.tif", "--method", method, "--k",
                                                 "2", "-o", "out", "--summary", "json"}));
    CHECK(found["clusters"]["pixels"] == 27);
    CHECK(found["inputs"][0]["excluded"]["not_finite"] == 3);
    CHECK(found["clusters"]["groups"][0]["pixels"] == 15);
    const auto labels = labels_in(dir / "out/holes.clusters.png");
    CHECK(labels[0] == 0);
    CHECK(labels[1] == 1);
    CHECK(labels[2] == 2);
  }
}

TEST_CASE("cluster models know their reach", "[cli][cluster]") {
  const TempDir dir;
  copy_demo(dir, "panel-b.png", "panel.png");
  const std::string method = GENERATE("k-means", "gaussian-mixture");
  summary_of(run_tool(dir, {"cluster", "panel.png", "--method", method, "--k", "4", "-o", "out",
                            "--write", "model", "--summary", "json"}));
  const nlohmann::json found =
      summary_of(run_tool(dir, {"classify", "panel.png", "--model", "out/clusters.model.json",
                                "--reject", "95", "--summary", "json"}));
  // The samples of a cluster are its own pixels, of which 5 % lie farther.
  CHECK(found["inputs"][0]["unclassified_percent"].get<double>() == Approx(5).margin(0.1));
  CHECK(found["inputs"][0]["far_percent"].get<double>() <= 1.01);
}
