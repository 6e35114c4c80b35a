// `train` and `classify` at the built program: samples named on the command line, and boxes.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/color/css_color.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/sample_regions.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

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
