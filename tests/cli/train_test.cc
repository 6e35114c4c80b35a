// `train` and `classify` at the built program: samples named on the command line, and boxes.
#include <fmt/format.h>

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/color/css_color.h"
#include "tests/support/outcome.h"
#include "tests/support/panes.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

/// A sample region over a whole picture of this size.
std::string region_over(int width, int height) {
  return fmt::format(
      R"({{"type":"FeatureCollection","features":[{{"type":"Feature","properties":{{"class":"red"}},)"
      R"("geometry":{{"type":"Polygon","coordinates":[[[0,0],[{0},0],[{0},{1}],[0,{1}],[0,0]]]}}}}]}})",
      width, height);
}

}  // namespace

TEST_CASE("train takes samples from the command line", "[cli][train]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  const json found = summary_of(
      run_tool(dir, {"train", "s.png", "--sample", "red=0,0,8,4", "--sample", "blue=10,5",
                     "--sample", "blue=11,2,1.5", "-o", "out", "--summary", "json"}));
  CHECK(found["inputs"][0]["regions"] == 3);
  CHECK(found["inputs"][0]["samples"] == "--sample");
  CHECK(found["model"]["classes"][0]["pixels"] == 32);
  CHECK(found["model"]["classes"][1]["name"] == "blue");
  // Added to those of a file.
  put_text(dir / "s.geojson",
           R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":)"
           R"({"class":"light"},"geometry":{"type":"Point","coordinates":[15.5,5.5]}}]})");
  const json both = summary_of(run_tool(dir, {"train", "s.png", "--samples", "s.geojson",
                                              "--sample", "dark=19,1", "--summary", "json"}));
  CHECK(both["model"]["classes"].size() == 2);
  CHECK(both["model"]["classes"][1]["name"] == "dark");
}

TEST_CASE("classes without a color can have the mean of their samples", "[cli][train]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  write_rgb(dir / "pale.png", 4, 2, std::vector<std::uint8_t>(24, 250));
  const Words train{"train",      "s.png",         "--sample",  "red=0,0,8,4",
                    "--sample",   "mix=16,0,4,10", "--sample",  "blue=9,0,4,4",
                    "--class",    "blue=#0000ff",  "--colors",  "means",
                    "--features", "lab.a,lab.b",   "--figures", "svg"};
  std::string model;
  for (const char* threads : {"1", "3"}) {
    const json classes = summary_of(run_tool(
        dir,
        with(train, {"-o", "out", "--summary", "json", "--threads", threads})))["model"]["classes"];
    CHECK(classes[0]["color"] == "#c81e28");
    // Half of it is light, half of it dark.
    const auto oklab = [](const char* css) { return css_color(css).in(spaces::kOklab); };
    const auto light = oklab("#f0f0eb"), dark = oklab("#141414");
    CHECK(classes[1]["color"] == css_hex({&spaces::kOklab,
                                          {(light[0] + dark[0]) / 2, (light[1] + dark[1]) / 2,
                                           (light[2] + dark[2]) / 2}}));
    CHECK(classes[2]["color"] == "#0000ff");
    CHECK((model.empty() || model == text_of_file(dir / "out/model.json")));
    model = text_of_file(dir / "out/model.json");
  }
  // The figures are drawn in the colors that all pictures together give.
  CHECK_THAT(text_of_file(dir / "out/s.samples.figure.svg"), Catch::Contains("rgb(200,  30,  40)"));
  put_text(dir / "s.geojson", region_over(8, 4));
  put_text(dir / "pale.geojson", region_over(4, 2));
  const json both = summary_of(
      run_tool(dir, words_of("train s.png pale.png --samples s.geojson --samples pale.geojson "
                             "--colors means --summary json -o both")))["model"]["classes"];
  const auto red = css_color("#c81e28").in(spaces::kOklab),
             pale = css_color("#fafafa").in(spaces::kOklab);
  std::array<double, 3> mean{};
  for (std::size_t c = 0; c < 3; ++c) mean[c] = (32 * red[c] + 8 * pale[c]) / 40;
  CHECK(both[0]["color"] == css_hex({&spaces::kOklab, mean}));
  check_error(run_tool(dir, with(train, {"--colors", "mean", "-o", "no"})), 2, "--colors");
}

TEST_CASE("boxes leave pixels unclassified and count the contested ones", "[cli][train]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  summary_of(run_tool(dir, {"train", "s.png", "--sample", "red=0,0,8,4", "--sample", "cool=8,0,6,4",
                            "--sample", "wide=0,0,14,2", "--method", "parallelepiped", "--features",
                            "srgb", "-o", "out", "--summary", "json"}));
  const json map = summary_of(run_tool(
      dir, {"classify", "s.png", "--model", "out/model.json", "-o", "out", "--summary", "json"}));
  const json& picture = map["inputs"][0];
  CHECK(map["method"] == "parallelepiped");
  CHECK(picture["unclassified"] == 60);  // light and dark
  CHECK(picture["contested"] == 140);    // in their own box and in the wide one
  CHECK(picture["classes"][0]["pixels"] == 80);
  CHECK(picture["classes"][1]["pixels"] == 60);
  const auto text = run_tool(dir, {"classify", "s.png", "--model", "out/model.json"});
  CHECK_THAT(text.out, Catch::Contains("140 pixels in the boxes of several classes"));
  // The spread is stored and read back.
  summary_of(run_tool(dir, {"train", "s.png", "--sample", "red=0,0,8,4", "--method",
                            "parallelepiped", "--boxes", "2.5", "-o", "two", "--summary", "json"}));
  CHECK(json::parse(text_of_file(dir / "two/model.json"))["box_spread"] == 2.5);
}

TEST_CASE("a rough and a smooth surface of one color are told apart", "[cli][train]") {
  const TempDir dir;
  constexpr std::uint32_t kWidth = 80, kHeight = 40;
  std::vector<std::uint8_t> rgb;
  for (std::uint32_t y = 0; y < kHeight; ++y)
    for (std::uint32_t x = 0; x < kWidth; ++x) {
      const int rough = x < kWidth / 2 ? 0 : (x + y) % 2 == 0 ? 20 : -20;
      rgb.insert(rgb.end(), 3, static_cast<std::uint8_t>(128 + rough));
    }
  write_rgb(dir / "s.png", kWidth, kHeight, rgb);
  const std::vector<std::string> samples{"--sample", "smooth=4,4,24,30", "--sample",
                                         "rough=50,4,24,30"};
  std::vector<std::string> words{"train", "s.png", "--features", "mean7(srgb.g),deviation7(srgb.g)",
                                 "-o",    "out",   "--summary",  "json"};
  words.insert(words.end(), samples.begin(), samples.end());
  const json trained = summary_of(run_tool(dir, words));
  CHECK(trained["model"]["features"] == json({"mean7(srgb.g)", "deviation7(srgb.g)"}));
  CHECK(trained["model"]["classes"][0]["mean"][1].get<double>() == Approx(0).margin(1e-4));
  CHECK(trained["model"]["classes"][1]["mean"][1].get<double>() == Approx(20).margin(0.01));
  for (const char* threads : {"1", "2"}) {
    const std::string out = std::string("map") + threads;
    const json map =
        summary_of(run_tool(dir, {"classify", "s.png", "--model", "out/model.json", "-o", out,
                                  "--threads", threads, "--figures", "none", "--summary", "json"}));
    // Halfway into the other surface the deviation is half as large.
    CHECK(map["inputs"][0]["classes"][0]["pixels"].get<double>() ==
          Approx(kWidth * kHeight / 2).margin(2.0 * kHeight));
  }
  CHECK(text_of_file(dir / "map1/s.classes.png") == text_of_file(dir / "map2/s.classes.png"));
  const json reasons = summary_of(run_tool(dir, {"explain", "s.png", "--model", "out/model.json",
                                                 "--at", "60,20", "--summary", "json"}));
  const json& pixel = reasons["inputs"][0]["pixels"][0];
  CHECK(pixel["features"][1]["name"] == "deviation7(srgb.g)");
  CHECK(pixel["features"][1]["value"].get<double>() == Approx(20).margin(0.01));
  const auto wrong = run_tool(
      dir, {"train", "s.png", "--features", "mean4(lab.l)", "--sample", "a=0,0", "-o", "none"});
  CHECK(wrong.exit_code == 2);
  CHECK_THAT(wrong.err, Catch::Contains("--features: 'mean4': the side of the square is an odd"));
  CHECK_FALSE(exists(dir / "none"));
  const auto elsewhere =
      run_tool(dir, {"split", "s.png", "--channels", "mean5(lab.l)", "-o", "none"});
  CHECK(elsewhere.exit_code == 2);
  CHECK_THAT(elsewhere.err, Catch::Contains("only train looks at what is around a pixel"));
}

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

namespace {

/// The demo panels in a folder, and a model of panel A by a method with its options.
void train_panel_a(const TempDir& dir, std::vector<std::string> more) {
  for (const char* name : {"panel-a.png", "panel-c.png", "panel-a.samples.geojson"})
    if (!std::filesystem::exists(dir / name)) copy_demo(dir, name);
  summary_of(run_tool(dir, with({"train", "panel-a.png", "--samples", "panel-a.samples.geojson",
                                 "-o", "out", "--figures", "none", "--summary", "json"},
                                more)));
}

}  // namespace

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

TEST_CASE("trimmed and held-out samples are kept apart", "[cli][train]") {
  const TempDir dir;
  train_panel_a(dir, {"--trim", "3", "--holdout", "0.4"});
  const auto samples = rows_of(dir / "out/samples.csv");
  std::uint64_t all = 0, kept = 0;
  for (const auto& row : samples) {
    if (row.at("feature") != "lab.l") continue;
    (row.at("pixels") == "all" ? all : kept) += std::stoull(row.at("count"));
  }
  CHECK(kept < all);
  CHECK(kept > all * 9 / 10);
  std::uint64_t trained = 0, held = 0, right = 0;
  for (const auto& row : rows_of(dir / "out/confusion.csv")) {
    const auto count = std::stoull(row.at("count"));
    (row.at("pixels") == "trained" ? trained : held) += count;
    if (row.at("pixels") == "held_out") right += std::stoull(row.at("as_" + row.at("class")));
  }
  CHECK(trained == kept);
  CHECK(all + held == 4807);
  CHECK(static_cast<double>(held) / 4807 == Approx(0.4).margin(0.06));
  CHECK(static_cast<double>(right) > 0.98 * static_cast<double>(held));
  // The same seed holds out the same pixels on any number of threads.
  const std::string once = text_of_file(dir / "out/model.json");
  train_panel_a(dir, {"--trim", "3", "--holdout", "0.4", "--threads", "1"});
  CHECK(text_of_file(dir / "out/model.json") == once);
  train_panel_a(dir, {"--trim", "3", "--holdout", "0.4", "--seed", "2"});
  CHECK(text_of_file(dir / "out/model.json") != once);
}

TEST_CASE("all methods are trained and compared", "[cli][train]") {
  const TempDir dir;
  train_panel_a(dir, {"--method", "all"});
  const auto methods = rows_of(dir / "out/methods.csv");
  REQUIRE(methods.size() == 5);
  double best = 0;
  for (const auto& row : methods) {
    const json model = json::parse(text_of_file(dir / ("out/" + row.at("method") + ".model.json")));
    CHECK(model["method"] == row.at("method"));
    CHECK(model["classes"][0]["reach"].size() == 5);
    best = std::max(best, std::stod(row.at("overall_percent")));
  }
  const json chosen = json::parse(text_of_file(dir / "out/model.json"));
  for (const auto& row : methods)
    if (row.at("method") == chosen["method"].get<std::string>())
      CHECK(std::stod(row.at("overall_percent")) == best);
  CHECK(best > 98);
  // A method that the samples do not do for says so, and the others go on.
  std::vector<std::string> arguments{"train",    "panel-a.png", "--sample",  "red=200,150,60,60",
                                     "--method", "all",         "--holdout", "0.5",
                                     "-o",       "few",         "--summary", "json"};
  for (int i = 0; i < 7; ++i) {
    arguments.push_back("--sample");
    arguments.push_back("blue=" + std::to_string(300 + 8 * i) + ",140");
  }
  const json few = summary_of(run_tool(dir, arguments));
  std::string problems;
  for (const json& method : few["model"]["methods"])
    if (method.contains("problem"))
      problems += method["method"].get<std::string>() + " " + method["problem"].get<std::string>();
  CHECK_THAT(problems, Catch::Contains("mahalanobis class 'blue' has"));
  CHECK_FALSE(std::filesystem::exists(dir / "few/mahalanobis.model.json"));
}

TEST_CASE("a model of panel A takes panel C for what it is", "[cli][classify]") {
  const TempDir dir;
  copy_demo(dir, "panel-c.reference.png");
  const auto [method, least] = GENERATE(std::pair<const char*, double>{"maximum-likelihood", 0.95},
                                        std::pair{"nearest-neighbor", 0.9});
  train_panel_a(dir, {"--method", method});
  const json map =
      summary_of(run_tool(dir, {"classify", "panel-c.png", "--model", "out/model.json",
                                "--confidence", "--blend", "0.25", "--pixel-size", "0.5mm", "-o",
                                "map", "--figures", "none", "--summary", "json"}));
  const json& picture = map["inputs"][0];
  CHECK(picture["far_percent"].get<double>() > 2);  // highlights and edges
  CHECK(picture["far_percent"].get<double>() < 15);
  CHECK(picture["confidence"]["mean_percent"].get<double>() > 95);
  CHECK(picture["classes"][0]["area"].get<double>() ==
        picture["classes"][0]["pixels"].get<double>() / 4);
  summary_of(
      run_tool(dir, {"assess", "map/panel-c.classes.png", "--reference", "panel-c.reference.png",
                     "-o", "map", "--write", "accuracy", "--summary", "json"}));
  CHECK(json::parse(text_of_file(dir / "map/accuracy.json"))["kappa"].get<double>() >= least);
  // A blend is the picture with a quarter of the class color.
  const auto labels = labels_in(dir / "map/panel-c.classes.png");
  const auto before = bytes_in(dir / "panel-c.png"),
             blend = bytes_in(dir / "map/panel-c.blend.png");
  const std::array<int, 3> ruby{0xa0, 0x1c, 0x2e};
  std::size_t checked = 0;
  for (std::size_t i = 0; i < labels.size(); i += 7)
    if (labels[i] == 1) {
      for (std::size_t c = 0; c < 3; ++c)
        CHECK(std::abs(blend[3 * i + c] - (0.75 * before[3 * i + c] + 0.25 * ruby[c])) <= 0.5);
      ++checked;
    }
  CHECK(checked > 100);
  // What is farther than its samples has no class, and nothing else changes.
  summary_of(run_tool(dir, {"classify", "panel-c.png", "--model", "out/model.json", "--reject",
                            "99", "-o", "strict", "--figures", "none", "--summary", "json"}));
  const auto strict = labels_in(dir / "strict/panel-c.classes.png");
  std::size_t rejected = 0;
  for (std::size_t i = 0; i < labels.size(); ++i) {
    if (strict[i] != labels[i]) CHECK(strict[i] == 0);
    rejected += strict[i] == 0;
  }
  CHECK(rejected >= picture["far"].get<std::size_t>());
  CHECK(rejected < labels.size() / 4);
}

TEST_CASE("a model of stored numbers refuses pictures stored otherwise", "[cli][classify]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  summary_of(run_tool(dir, {"train", "s.png", "--sample", "red=0,0,8,4", "--sample", "blue=9,0,4,4",
                            "--features", "file.0,file.2", "-o", "out", "--summary", "json"}));
  summary_of(run_tool(dir, {"convert", "s.png", "--to", "srgb", "--depth", "16", "-o", "deep.png",
                            "--summary", "json"}));
  check_error(run_tool(dir, {"classify", "deep.png", "--model", "out/model.json", "-o", "map"}), 1,
              "deep.png: stores 3 channels of 16 bits, and the model looks at stored numbers of "
              "pictures with 3 channels of 8 bits");
  check_nothing_in(dir, "map");
  // With channels of a space another depth is only noted.
  summary_of(run_tool(dir, {"train", "s.png", "--sample", "red=0,0,8,4", "--sample", "blue=9,0,4,4",
                            "-o", "out", "--summary", "json"}));
  const auto noted = run_tool(dir, {"classify", "deep.png", "--model", "out/model.json"});
  CHECK(noted.exit_code == 0);
  CHECK_THAT(noted.out, Catch::Contains("note: stores 16 bits, the model learned from 8 bits"));
}

TEST_CASE("classify says which limits and shares it cannot take", "[cli][classify]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  summary_of(run_tool(
      dir, {"train", "s.png", "--sample", "red=0,0,8,4", "-o", "out", "--summary", "json"}));
  const auto try_with = [&](const std::vector<std::string>& more) {
    return run_tool(dir,
                    with({"classify", "s.png", "--model", "out/model.json", "-o", "map"}, more));
  };
  check_error(try_with({"--reject", "97"}), 2,
              "--reject: '97' is no share that models know; use 90, 95");
  check_error(try_with({"--blend", "2"}), 2, "--blend: '2'");
  check_error(try_with({"--pixel-size", "3"}), 2, "--pixel-size: '3' has no unit");
  json model = json::parse(text_of_file(dir / "out/model.json"));
  model["classes"][0].erase("reach");
  put_text(dir / "out/model.json", model.dump());
  check_error(try_with({"--reject", "95"}), 1, "does not know how far its samples reach");
  model["classes"][0]["prior"] = 2;
  put_text(dir / "out/model.json", model.dump());
  check_error(try_with({}), 1, "is a damaged model (classes/0/prior");
  check_nothing_in(dir, "map");
}

TEST_CASE("explain shows the numbers of single pixels", "[cli][explain]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  summary_of(run_tool(dir, {"train", "s.png", "--sample", "red=0,0,8,4", "--sample", "blue=9,0,4,4",
                            "--features", "srgb.r,srgb.b", "-o", "out", "--summary", "json"}));
  const json found =
      summary_of(run_tool(dir, {"explain", "s.png", "--model", "out/model.json", "--at", "15,3",
                                "--at", "0,0", "-o", "why", "--summary", "json"}));
  const json& light = found["inputs"][0]["pixels"][0];
  CHECK(light["x"] == 15);
  CHECK(light["features"][0]["value"] == 240);
  // (240 - 200)^2 + (235 - 40)^2 and (240 - 30)^2 + (235 - 180)^2
  CHECK(light["classes"][0]["sum"] == 1600 + 38025);
  CHECK(light["classes"][1]["sum"] == 44100 + 3025);
  CHECK(light["classes"][0]["terms"][1]["difference"] == 195);
  CHECK(light["class"] == "red");
  CHECK(light["runner_up"] == "blue");
  CHECK(light["margin"] == 47125 - 39625);
  CHECK(light["classes"][0]["within_percent"].is_null());
  const json& own = found["inputs"][0]["pixels"][1];
  CHECK(own["class"] == "red");
  CHECK(own["classes"][0]["within_percent"] == 90);
  CHECK(json::parse(text_of_file(dir / "why/s.reasons.json"))[1] == own);
  CHECK(std::filesystem::exists(dir / "why/s.reasons.figure.png"));
  const auto text =
      run_tool(dir, {"explain", "s.png", "--model", "out/model.json", "--first", "2"});
  CHECK_THAT(text.out, Catch::Contains("2. pixel 1,0: srgb.r 200, srgb.b 40"));
  CHECK_THAT(text.out, Catch::Contains("so: red (the sum is 48500 less than that of blue)"));
  const auto try_with = [&](const std::vector<std::string>& more) {
    return run_tool(dir, with({"explain", "s.png", "--model", "out/model.json", "-o", "no"}, more));
  };
  check_error(try_with({"--at", "20,1"}), 1, "--at: the picture is 20x10");
  check_error(try_with({"--at", "5,1", "--region", "10,0,5,5"}), 1,
              "the pixel at 5,1 does not count or lacks a feature of the model");
  check_error(try_with({}), 2, "explain needs --at or --first");
  check_error(try_with({"--at", "1"}), 2, "--at: '1' is not a pixel");
  check_nothing_in(dir, "no");
}

TEST_CASE("a model that was edited into nonsense is named by what cannot use it",
          "[cli][train][classify]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  summary_of(run_tool(dir, {"train", "s.png", "--sample", "red=0,0,8,10", "--sample",
                            "blue=8,0,6,10", "--method", "maximum-likelihood", "--figures", "none",
                            "--write", "model", "-o", "out", "--summary", "json"}));
  const json good = json::parse(text_of_file(dir / "out/model.json"));
  json flat = good, unknown = good;
  flat["classes"][0]["covariance"][0][0] = -1;
  unknown["method"] = "guess";
  put_text(dir / "flat.json", flat.dump());
  put_text(dir / "unknown.json", unknown.dump());
  for (const std::vector<std::string>& use :
       {std::vector<std::string>{"classify", "s.png", "-o", "x"},
        {"explain", "s.png", "--at", "1,1", "-o", "x"},
        {"cluster", "s.png", "-o", "x"}}) {
    INFO(use[0]);
    check_error(run_tool(dir, with(use, {"--model", "flat.json"})), 1,
                "flat.json: the covariance of class");
    check_error(run_tool(dir, with(use, {"--model", "unknown.json"})), 1,
                "unknown.json: the method 'guess' is not known to this version");
    check_nothing_in(dir, "x");
  }
}
