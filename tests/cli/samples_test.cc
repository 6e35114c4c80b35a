// Where `train` takes samples from, at the built program: files of regions, labels and strokes, of
// one picture and of several.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "tests/support/outcome.h"
#include "tests/support/panes.h"
#include "tests/support/pictures.h"
#include "tests/support/sample_regions.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

TEST_CASE("train says which samples it cannot use", "[cli][train]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  write_stripes(dir / "t.png");
  const std::vector<std::pair<std::vector<std::string>, std::string>> wrong{
      {{"s.png"}, "train needs --samples, --painted, --sample or --from"},
      {{"s.png", "--sample", "red"}, "--sample"},
      {{"s.png", "t.png", "--sample", "red=1,1"}, "--sample is a place on one picture"},
      {{"s.png", "--sample", "red=1,1", "--boxes", "2"}, "--boxes are for parallelepiped only"},
      {{"s.png", "--sample", "red=1,1", "--method", "parallelepiped", "--boxes", "0"}, "--boxes"}};
  for (const auto& [options, says] : wrong) {
    check_error(run_tool(dir, with({"train", "-o", "out"}, options)), 2, says);
  }
  check_error(run_tool(dir, {"train", "s.png", "--sample", "red=30,1,4,4", "-o", "out"}), 1,
              "--sample: ");
  check_nothing_in(dir, "out");
}

TEST_CASE("points of a table train like the pixels they are", "[cli][train]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  std::string table = "class,x,y,note\n,19,9,not looked at\n";
  for (int y = 1; y < 6; ++y)
    for (int x = 1; x < 5; ++x)
      for (const auto& [name, left] : {std::pair{"red", 0}, {"blue", 8}})
        table +=
            std::string(name) + "," + std::to_string(left + x) + "," + std::to_string(y) + ",\n";
  put_text(dir / "s.csv", table);
  const auto classes = [&](const Words& samples) {
    const Words train{"train", "s.png", "-o", "out", "--write", "model", "--figures", "none"};
    const Outcome run = run_tool(dir, with(train, samples));
    INFO(run.err);
    CHECK(run.exit_code == 0);
    return std::pair(json::parse(text_of_file(dir / "out/model.json"))["classes"], run.err);
  };
  const auto [points, warning] = classes({"--samples", "s.csv"});
  CHECK_THAT(warning, Catch::Contains("s.csv: 1 of 41 pixels have no class and are left out"));
  REQUIRE(points.size() == 2);
  CHECK(points[0]["name"] == "red");
  CHECK(points == classes({"--sample", "red=1,1,4,5", "--sample", "blue=9,1,4,5"}).first);
  // They stand in the model as samples do, so that it can be trained on.
  CHECK(classes({"--from", "out/model.json"}).first == points);
  std::filesystem::remove_all(dir / "out");
  const auto refused = [&](const std::string& text, const std::string& message) {
    put_text(dir / "wrong.csv", text);
    check_error(run_tool(dir, {"train", "s.png", "--samples", "wrong.csv", "-o", "out"}), 1,
                message);
    check_nothing_in(dir, "out");
  };
  refused(
      "x,y,class\n20,1,red\n",
      "wrong.csv: has the pixel 20,1, and the picture is 20x10; give the table of this picture");
  refused("x,y,class\n2,1,\n", "wrong.csv: says of no pixel what it is; fill in the column class");
}

TEST_CASE("labels and painted strokes train like the regions they stand for", "[cli][train]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  const std::vector<std::string> tail{"-o", "out", "--summary", "json", "--write", "model"};
  const auto train = [&](std::vector<std::string> arguments) {
    arguments.insert(arguments.begin(), {"train", "s.png"});
    arguments.insert(arguments.end(), tail.begin(), tail.end());
    summary_of(run_tool(dir, arguments));
    return json::parse(text_of_file(dir / "out/model.json"));
  };
  const json places = train({"--sample", "red=1,1,4,5", "--sample", "blue=9,2,4,6"});
  std::vector<std::uint8_t> labels(200);
  std::vector<std::uint8_t> painted = bytes_in(dir / "s.png");
  const auto mark = [&](int x0, int y0, int w, int h, std::uint8_t label,
                        std::array<std::uint8_t, 3> color) {
    for (int y = y0; y < y0 + h; ++y)
      for (int x = x0; x < x0 + w; ++x) {
        labels[static_cast<std::size_t>(y * 20 + x)] = label;
        for (std::size_t c = 0; c < 3; ++c)
          painted[static_cast<std::size_t>(y * 20 + x) * 3 + c] = color[c];
      }
  };
  mark(1, 1, 4, 5, 1, {255, 0, 0});
  mark(9, 2, 4, 6, 2, {0, 0, 255});
  write_labels(dir / "l.png", 20, labels, {{1, "red", "#ff0000"}, {2, "blue", "#0000ff"}});
  // The soft edge of a brush fills no square.
  painted[0] = painted[1] = 99;
  write_rgb(dir / "p.png", 20, 10, painted);
  const json by_labels = train({"--samples", "l.png"});
  const json by_strokes =
      train({"--painted", "p.png", "--class", "red=#f00", "--class", "blue=rgb(0 0 255)"});
  for (const json& model : {by_labels, by_strokes}) {
    REQUIRE(model["classes"].size() == 2);
    for (std::size_t c = 0; c < 2; ++c) {
      CHECK(model["classes"][c]["name"] == places["classes"][c]["name"]);
      CHECK(model["classes"][c]["count"] == places["classes"][c]["count"]);
      CHECK(model["classes"][c]["mean"] == places["classes"][c]["mean"]);
    }
  }
  CHECK(by_strokes["classes"][0]["color"] == "#ff0000");
  // Flat colors are classes called by their color, unless a name is given.
  std::vector<std::uint8_t> flat(800);
  for (std::size_t i = 0; i < 200; ++i)
    if (labels[i] != 0) {
      flat[4 * i + (labels[i] == 1 ? 0 : 2)] = 255;
      flat[4 * i + 3] = 255;
    }
  write_picture(dir / "f.png", spec_of(20, 10, 4), bytes_of(flat));
  const json by_colors = train({"--samples", "f.png", "--class", "red=#ff0000"});
  CHECK(by_colors["classes"][0]["name"] == "red");
  CHECK(by_colors["classes"][1]["name"] == "#0000ff");
  CHECK(by_colors["classes"][1]["mean"] == places["classes"][1]["mean"]);
}

TEST_CASE("painted copies go with the inputs they are called after", "[cli][train]") {
  const TempDir dir;
  std::filesystem::create_directory(dir / "strokes");
  // A gray and a green picture, each with a stroke at another place.
  const auto write_pair = [&](const std::string& stem, std::uint8_t green, std::size_t stroke) {
    std::vector<std::uint8_t> rgb(12 * 8 * 3, 60);
    for (std::size_t i = 1; i < rgb.size(); i += 3)
      rgb[i] = static_cast<std::uint8_t>(green + i % 7);
    write_rgb(dir / (stem + ".png"), 12, 8, rgb);
    for (std::size_t y = 1; y < 7; ++y)
      for (std::size_t x = stroke; x < stroke + 4; ++x) {
        rgb[3 * (12 * y + x)] = stroke == 1 ? 255 : 0;
        rgb[3 * (12 * y + x) + 1] = 0;
        rgb[3 * (12 * y + x) + 2] = stroke == 1 ? 0 : 255;
      }
    write_rgb(dir / (stem + ".painted.png"), 12, 8, rgb);
    write_rgb(dir / ("strokes/" + stem + ".png"), 12, 8, rgb);
  };
  write_pair("a", 60, 1);
  write_pair("b", 160, 7);
  const auto means = [&](const std::string& inputs, const std::string& painted) {
    INFO(inputs << " " << painted);
    const json found = summary_of(
        run_tool(dir, words_of("train " + inputs + " --method minimum-distance --features srgb.g " +
                               painted + " -o out --figures none --summary json")));
    std::map<std::string, double> by_name;
    const json model = json::parse(text_of_file(dir / "out/model.json"));
    for (const json& one : model["classes"]) by_name[one["name"]] = one["mean"][0];
    return by_name;
  };
  const auto ordered = means("a.png b.png", "--painted a.painted.png --painted b.painted.png");
  REQUIRE(ordered.size() == 2);
  CHECK(ordered.at("#ff0000") < 70);
  CHECK(ordered.at("#0000ff") > 150);
  CHECK(means("b.png a.png", "--painted a.painted.png --painted b.painted.png") == ordered);
  CHECK(means("b.png a.png", "--painted strokes") == ordered);
  CHECK(means("a.png b.png", "--painted *.painted.png") == ordered);
  std::filesystem::remove(dir / "strokes/b.png");
  check_error(run_tool(dir, words_of("train a.png b.png --painted strokes -o none")), 1,
              "b.png: no file of strokes goes with its name");
  check_error(run_tool(dir, words_of("train a.png b.png --painted strokes --painted a.painted.png "
                                     "-o none")),
              1, "b.png: no file of strokes goes with its name");
  check_error(run_tool(dir, words_of("train a.png b.png --painted *.painted.png --painted "
                                     "a.painted.png -o none")),
              2, "there are 2 inputs and 2 painted copies");
  check_nothing_in(dir, "none");
}

TEST_CASE("the color of a class that has no sample is told", "[cli][train]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  const Outcome run =
      run_tool(dir, {"train", "s.png", "--sample", "ruby=0,0,8,4", "--sample", "lead=9,0,4,4",
                     "--class", "rubby=#b5563a", "--class", "lead=#303030", "--summary", "json"});
  CHECK(summary_of(run)["model"]["classes"][1]["color"] == "#303030");
  CHECK(run.err ==
        "chalcedony: warning: --class: no sample is of a class 'rubby'; did you mean 'ruby'?\n");
}

TEST_CASE("several pictures train at once as one after the other", "[cli][train]") {
  const TempDir dir;
  for (const char* panel : {"panel-a", "panel-b", "panel-d"})
    for (const char* ending : {".png", ".samples.geojson"})
      copy_demo(dir, std::string(panel) + ending);
  REQUIRE(run_tool(dir, words_of("train panel-d.png --samples panel-d.samples.geojson "
                                 "--keep-samples -o kept"))
              .exit_code == 0);
  const auto run = [&](const std::string& threads) {
    const auto summary = summary_of(run_tool(
        dir, words_of("train panel-b.png kept/sample-table.csv panel-a.png --samples "
                      "panel-b.samples.geojson --samples panel-a.samples.geojson --method "
                      "nearest-neighbor --trim 4 --figures none --summary json -o out --threads " +
                      threads)));
    auto contents = contents_of(dir / "out");
    contents.erase("how.json");
    return std::pair(summary, contents);
  };
  const auto [summary, contents] = run("1");
  REQUIRE(summary["inputs"].size() == 3);
  CHECK(summary["inputs"][1]["samples"] == "kept/sample-table.csv");
  CHECK(summary["inputs"][2]["samples"] == "panel-a.samples.geojson");
  CHECK(contents.count("model.json") == 1);
  for (const char* threads : {"2", "5"}) CHECK(run(threads) == std::pair(summary, contents));
}

TEST_CASE("samples of a folder train like those that are named one by one", "[cli][train]") {
  const TempDir dir;
  std::filesystem::create_directory(dir / "samples");
  for (const char* pane : {"p", "q"}) {
    write_stripes(dir / (std::string(pane) + ".png"));
    const int width = *pane == 'p' ? 6 : 8;  // of the red stripe
    put_text(dir / ("samples/" + std::string(pane) + ".samples.geojson"), region_over(width, 10));
  }
  const Words both{"train", "q.png", "p.png", "--figures", "none"};
  REQUIRE(run_tool(dir, with(both, {"--samples", "samples/q.samples.geojson", "--samples",
                                    "samples/p.samples.geojson", "-o", "one"}))
              .exit_code == 0);
  const Outcome run = run_tool(dir, with(both, {"--samples", "samples", "-o", "all"}));
  CHECK(run.exit_code == 0);
  CHECK(text_of_file(dir / "all/model.json") == text_of_file(dir / "one/model.json"));
  CHECK(summary_of(run_tool(dir, with(both, {"--samples", "samples/*.samples.geojson", "--summary",
                                             "json"})))["model"]["classes"][0]["pixels"] == 140);
  // Made again from what its record says, as long as the samples are those.
  REQUIRE(run_tool(dir, {"run", "all/how.json", "-o", "again", "-q"}).exit_code == 0);
  CHECK(text_of_file(dir / "again/model.json") == text_of_file(dir / "all/model.json"));
  put_text(dir / "samples/p.samples.geojson", region_over(5, 10));
  check_error(run_tool(dir, {"run", "all/how.json", "-o", "no"}), 1,
              "samples/p.samples.geojson: is not what it was when the results were made");

  write_stripes(dir / "r.png");
  check_error(run_tool(dir, with(both, {"r.png", "--samples", "samples", "-o", "no"})), 1,
              "r.png: no file of samples goes with its name; name the two alike, as "
              "pane.samples.geojson and pane.png");
  check_error(run_tool(dir, {"train", "r.png", "--from", "one/model.json", "--samples", "samples",
                             "-o", "no"}),
              1,
              "samples: no file goes with the name of an input; name the two alike, as "
              "pane.samples.geojson and pane.png");
  check_nothing_in(dir, "no");
}

TEST_CASE("samples drawn on a copy of another size are fitted when asked", "[cli][train]") {
  const TempDir dir;
  copy_demo(dir, "panel-a.png");
  copy_demo(dir, "panel-a.samples.geojson");
  copy_demo(dir, "panel-a.reference.png");
  REQUIRE(run_tool(dir, words_of("reframe panel-a.png --scale 2 -o large.png")).exit_code == 0);
  REQUIRE(run_tool(dir, words_of("reframe panel-a.reference.png --scale 2 -o map.png")).exit_code ==
          0);
  const Words train = words_of("train large.png --samples panel-a.samples.geojson -o out");
  const Words assess =
      words_of("assess map.png --reference panel-a.samples.geojson --summary json");
  const Words like = words_of("mask large.png --like panel-a.samples.geojson:ruby --summary json");
  for (const Words& words : {train, assess, like})
    check_error(run_tool(dir, words), 1,
                "panel-a.samples.geojson: its samples were drawn on a picture of 480x360, this one "
                "is 960x720; give the picture they belong to, or add --rescale-samples");
  check_nothing_in(dir, "out");
  const auto fitted = [&](const Words& words) {
    return run_tool(dir, with(words, {"--rescale-samples"}));
  };
  CHECK(fitted(train).exit_code == 0);
  const auto model = nlohmann::json::parse(text_of_file(dir / "out/model.json"));
  // Some four pixels for each that the samples hold on the panel itself; disks are rounder here.
  CHECK(model["classes"].size() == 6);
  CHECK(model["trained_on"][0]["width"] == 960);
  CHECK(model["trained_on"][0]["samples"]["width"] == 960);
  const auto assessed = summary_of(fitted(assess));
  CHECK(assessed["inputs"][0]["assessed"].get<double>() == Approx(4 * 4807).epsilon(0.01));
  CHECK(assessed["inputs"][0]["overall"].get<double>() > 0.999);
  CHECK(summary_of(fitted(like))["inputs"][0]["like_pixels"].get<double>() ==
        Approx(4 * 925).epsilon(0.01));
}

TEST_CASE("what cannot be strokes or labels is said", "[cli][train]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  write_rgb(dir / "small.png", 2, 1, {1, 2, 3, 4, 5, 6});
  const auto try_with = [&](const std::vector<std::string>& more) {
    return run_tool(dir, with({"train", "s.png", "-o", "out"}, more));
  };
  check_error(try_with({"--painted", "s.png"}), 1, "s.png: has no strokes that differ");
  check_error(try_with({"--painted", "small.png"}), 1, "small.png: is 2x1, the picture 20x10");
  check_error(try_with({"--samples", "small.png"}), 1, "small.png: is 2x1, the picture 20x10");
  summary_of(
      run_tool(dir, {"convert", "s.png", "--to", "srgb", "-o", "s.jpg", "--summary", "json"}));
  check_error(try_with({"--painted", "s.jpg"}), 1, "s.jpg: was compressed with losses");
  check_error(try_with({"--painted", "s.png", "--painted", "s.png"}), 2,
              "there are 1 inputs and 2 painted copies");
  check_error(try_with({"--sample", "a=1,1", "--class", "a=no-color"}), 2, "--class");
  check_error(try_with({"--sample", "a=1,1", "--holdout", "1"}), 2, "--holdout: '1'");
  check_error(try_with({"--sample", "a=1,1", "--holdout", "0.5"}), 1, "class 'a' ");
  check_error(try_with({"--sample", "a=1,1", "--scatter", "lab.l"}), 2, "--scatter");
  check_error(try_with({"--sample", "a=1,1", "--neighbors", "3"}), 2,
              "--neighbors are for nearest-neighbor only");
  check_nothing_in(dir, "out");
}

TEST_CASE("samples that overlap or are there twice are said by name", "[cli][train]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  const auto found =
      run_tool(dir, {"train", "s.png", "--sample", "red=0,0,8,4", "--sample", "red=0,0,8,4",
                     "--sample", "cool=6,0,4,2", "--summary", "json"});
  CHECK_THAT(found.err, Catch::Contains("4 pixels belong to samples of both 'red' and 'cool'"));
  CHECK_THAT(found.err, Catch::Contains("class 'red' has 1 region twice; their pixels count once"));
  CHECK(summary_of(found)["model"]["classes"][0]["pixels"] == 32);
}

TEST_CASE("samples that lie on the wrong picture are suspected", "[cli][train]") {
  const TempDir dir;
  for (const char* name : {"panel-a.png", "panel-a.samples.geojson", "panel-b.samples.geojson"})
    copy_demo(dir, name);
  const auto warned = [&](const char* samples) {
    const auto run = run_tool(dir, {"train", "panel-a.png", "--samples", samples, "-o", "out",
                                    "--write", "model", "--summary", "json"});
    summary_of(run);
    return run.err;
  };
  CHECK_THAT(warned("panel-b.samples.geojson"),
             Catch::Contains("the model hardly tells its own samples apart (kappa 0.2") &&
                 Catch::Contains("see whether the regions lie where they belong"));
  CHECK_THAT(warned("panel-a.samples.geojson"), !Catch::Contains("hardly"));
}
