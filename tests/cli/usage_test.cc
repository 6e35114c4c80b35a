// Wrong calls and bad inputs: exit code, the one line said, and what is left on disk.
#include <sys/stat.h>
#include <unistd.h>

#include <catch2/catch.hpp>
#include <map>
#include <regex>
#include <sstream>

#include "cli/help/completion.h"
#include "cli/help/man_page.h"
#include "cli/options/command.h"
#include "core/color/space.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// Types the commands of a page in the folder of the demo data; how many there are.
std::size_t commands_run_of(const std::string& file) {
  const TempDir demo;
  std::filesystem::copy(CHALCEDONY_DEMO_DATA, demo.path());
  std::istringstream page(text_of_file(file));
  std::size_t run = 0;
  for (std::string line, command; std::getline(page, line);) {
    if (command.empty() && !line.starts_with("    chalcedony ")) continue;
    command += line;
    if (command.ends_with("\\")) {
      command.pop_back();
      continue;
    }
    const std::vector<std::string> words = words_of(command);
    INFO(command);
    const Outcome outcome = run_tool(demo, {words.begin() + 1, words.end()});
    INFO(outcome.err);
    CHECK(outcome.exit_code == 0);
    CHECK(outcome.err.empty());
    command.clear();
    ++run;
  }
  return run;
}

}  // namespace

TEST_CASE("wrong usage is said in one line, exit 2, nothing written", "[cli][usage]") {
  struct Row {
    std::vector<std::string> arguments;
    const char* says;
  };
  const Row rows[] = {
      {{}, "no command is given"},
      {{"inspct", "a.png"}, "there is no command 'inspct'; did you mean 'inspect'?"},
      {{"inspect"}, "no input is given; the call is chalcedony inspect INPUT..."},
      {{"run"}, "no input is given; the call is chalcedony run RECIPE.yaml INPUT... -o FOLDER"},
      {{"--threads", "2", "inspect"},
       "the command comes first, and '--threads' is an option; write the command in front of it"},
      {{"helpp"}, "there is no command 'helpp'; did you mean 'help'?"},
      {{"help", "inspct"}, "there is no command 'inspct'; did you mean 'inspect'?"},
      {{"inspect", "a.png", "--spce", "lab"},
       "there is no option '--spce'; did you mean '--space'?"},
      {{"inspect", "a.png", "--space"}, "--space needs a value; see --help"},
      {{"mask", "a.png", "--auto", "gray", "-o", "--figures", "none"},
       "-o needs a value, and '--figures' is an option; write the value behind -o"},
      {{"inspect", "a.png", "--space", "labb"},
       "--space: no color space is called 'labb'; did you mean 'lab'?"},
      {{"inspect", "a.png", "--space", "lab", "--space", "hsv"}, "--space is given twice"},
      {{"inspect", "a.png", "--spac", "lab"}, "there is no option '--spac'"},
      {{"split", "a.png", "--verb"}, "there is no option '--verb'; did you mean '--verbose'?"},
      {{"split", "a.png", "--to", "hsv"},
       "there is no option '--to' here; convert, similar, diff, spots have it; this command's own "
       "are "
       "--channels, "
       "--depth; see --help for all"},
      {{"slice", "a.png", "--reject", "99"},
       "there is no option '--reject' here; classify has it; this command's own are --channel, "},
      {{"join", "a.png", "--resume"},
       "there is no option '--resume' here; other commands have it; this command's own are "
       "--space, --plane, --depth, --alpha; see --help for all"},
      {{"inspect", "a.png", "--at", "3"}, "--at: '3' is not a pixel"},
      {{"inspect", "a.png", "--region", "1,2,3"}, "--region: '1,2,3' is not a region"},
      {{"inspect", "a.png", "--threads", "0"}, "--threads: '0' is not a whole number from 1"},
      {{"inspect", "a.png", "--summary", "xml"},
       "--summary: 'xml' is not known; use one of text, json"},
      {{"inspect", "a.png", "--alpha", "keep"}, "--alpha: 'keep' is not known"},
      {{"inspect", "a.png", "--hue-floor", "200"}, "--hue-floor: '200' is not a percentage"},
      {{"inspect", "a.png", "-o", "out", "--write", "statistic"}, "did you mean 'statistics'?"},
      {{"convert", "a.png", "--to", "lab"}, "convert needs -o"},
      {{"convert", "a.png", "--to", "lab", "-o", "a.jpg"},
       "a JPEG would not keep the numbers of lab"},
      {{"convert", "a.png", "--depth", "float", "-o", "b.png"}, "a PNG cannot hold floats"},
      {{"convert", "a.png", "-o", "b.bmp"}, "'.bmp' is no picture format"},
      {{"convert", "a.png", "--depth", "12", "-o", "b.png"}, "--depth: '12' is not known"},
      {{"histogram", "a.png", "--channels", "srgb.q"}, "--channels: no channel is called 'srgb.q'"},
      {{"histogram", "a.png", "--joint", "hsv.h"}, "--joint: 'hsv.h' is not two channels"},
      {{"histogram", "a.png", "--bins", "none"}, "--bins: 'none' is not a whole number"},
      {{"histogram", "a.png", "--joint", "hsv.h,hsv.s", "--joint-bins", "4"},
       "--joint-bins: '4' is not two numbers"},
      {{"histogram", "a.png", "--cube", "65"}, "--cube: '65' is not a whole number from 1 to 64"},
      {{"mask", "a.png", "--where", "h < 20"}, "expected a channel"},
      {{"mask", "a.png", "--where", "q < 20", "--space", "hsv"}, "expected a channel"},
      {{"mask", "a.png", "--where", "h < 20", "--space", "hsx"}, "hsv"},
      {{"histogram", "a.png", "--cube", "4", "--space", "gray"},
       "--space: 'gray' has one channel, and three are needed"},
      {{"mask", "a.png"}, "mask needs --where"},
      {{"mask", "a.png", "--where", "hsv.h in"},
       "--where: selection, character 9: expected a number"},
      {{"train", "a.png"}, "train needs --samples"},
      {{"train", "a.png", "b.png", "--samples", "s"}, "there are 2 inputs and 1 sample files"},
      {{"train", "a.png", "--samples", "s", "--method", "maximum"},
       "--method: 'maximum' is not known"},
      {{"train", "a.png", "--samples", "s", "--priors", "even"},
       "--priors are for maximum-likelihood only"},
      {{"train", "a.png", "--samples", "s", "--method", "maximum-likelihood", "--priors", "odd"},
       "--priors: 'odd' is not known"},
      {{"train", "a.png", "--samples", "s", "--method", "maximum-likelihood", "--priors", "a=0"},
       "--priors: '0' is not a number above 0 and below"},
      {{"classify", "a.png"}, "classify needs --model"},
      {{"demo"}, "demo needs -o"},
      {{"mask", "x/a.png", "y/a.png", "--where", "gray > 3", "-o", "out"},
       "x/a.png and y/a.png would write results of the same name"}};
  for (const Row& row : rows) {
    const TempDir dir;
    const Outcome run = run_tool(dir, row.arguments);
    INFO(row.says);
    check_error(run, 2, row.says);
    CHECK(run.out.empty());
    CHECK(dir.files().empty());
  }
}

TEST_CASE("bad inputs are said in one line, exit 1, and leave no half file", "[cli][usage]") {
  const TempDir made;
  write_rgb(made / "good.png", 300, 200, random_bytes(300 * 200 * 3));
  const std::string good = text_of_file(made / "good.png");
  write_picture(made / "clear.png", spec_of(2, 2, 4), std::vector<std::byte>(16));
  write_picture(made / "mask.png", spec_of(5, 5, 1), std::vector<std::byte>(25));
  struct Row {
    std::vector<std::string> arguments;
    const char* says;
  };
  const std::vector<std::string> where{"--where", "gray > 3", "-o", "out"};
  const auto with = [](std::vector<std::string> a, const std::vector<std::string>& b) {
    a.insert(a.end(), b.begin(), b.end());
    return a;
  };
  const Row rows[] = {
      {with({"mask", "none.png"}, where), "none.png: no such file"},
      {with({"mask", "half.png"}, where), "half.png: damaged PNG"},
      {with({"mask", "text.png"}, where), "text.png: is not a picture this program reads"},
      {with({"mask", "clear.png"}, where), "clear.png: no pixel counts"},
      {with({"mask", "good.png", "--within", "mask.png"}, where),
       "mask.png: the mask is 5x5, the picture 300x200"},
      {with({"mask", "good.png", "--region", "290,0,20,20"}, where),
       "good.png: region 290,0,20,20 reaches outside"},
      {with({"mask", "good.png", "--max-pixels", "1000"}, where), "more than --max-pixels 1000"},
      {{"mask", "good.png", "--where", "file.3 > 2", "-o", "out"},
       "good.png: there is no channel file.3"},
      {{"convert", "half.png", "--to", "lab", "-o", "o.tif"}, "half.png: damaged PNG"},
      {{"convert", "good.png", "-o", "good.png"}, "good.png: is an input and is not replaced"},
      {{"convert", "good.png", "-o", "no/such/o.png"}, "no/such/o.png: cannot be written"},
      {{"histogram", "half.png", "-o", "out"}, "half.png: damaged PNG"},
      {{"inspect", "good.png", "--at", "-3,4"}, "--at -3,4 lies outside the picture"},
      {{"train", "good.png", "--samples", "none.geojson", "-o", "out"},
       "none.geojson: no such file"},
      {{"train", "good.png", "--samples", "text.png", "-o", "out"}, "text.png: is not a picture"},
      {{"train", "good.png", "--samples", "text.geojson", "-o", "out"},
       "text.geojson: is no GeoJSON"},
      {{"train", "good.png", "--samples", "dot.geojson", "--method", "mahalanobis", "-o", "out"},
       "class 'dot' has 1 sample pixel, too few for the covariance of 3 features"},
      {{"classify", "good.png", "--model", "text.png", "-o", "out"}, "text.png: is not a model"},
      {{"classify", "good.png", "--model", "none.json", "-o", "out"}, "none.json: no such file"},
      {{"demo", "-o", "text.png/out"}, "text.png/out: the folder cannot be made"}};
  for (const Row& row : rows) {
    const TempDir dir;
    put_text(dir / "good.png", good);
    put_text(dir / "half.png", good.substr(0, good.size() / 2));
    put_text(dir / "text.png", "no picture");
    put_text(dir / "text.geojson", "no regions");
    put_text(dir / "dot.geojson",
             R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":
             {"class":"dot"},"geometry":{"type":"Point","coordinates":[5,5]}}]})");
    put_text(dir / "clear.png", text_of_file(made / "clear.png"));
    put_text(dir / "mask.png", text_of_file(made / "mask.png"));
    const auto before = dir.files();
    INFO(row.says);
    check_error(run_tool(dir, row.arguments), 1, row.says);
    CHECK(dir.files() == before);
    CHECK(text_of_file(dir / "good.png") == good);
  }
}

TEST_CASE("one bad file does not stop the others", "[cli][usage]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 4, 4, random_bytes(48));
  write_rgb(dir / "c.png", 4, 4, random_bytes(48));
  put_text(dir / "b.png", "broken");
  const Outcome run = run_tool(dir, {"mask", "a.png", "b.png", "c.png", "--where", "gray > 3", "-o",
                                     "out", "--figures", "none"});
  check_error(run, 1, "b.png: is not a picture");
  CHECK(dir.files().count("out/a.mask.png") == 1);
  CHECK(dir.files().count("out/c.mask.png") == 1);
  CHECK(dir.files().count("out/b.mask.png") == 0);
}

TEST_CASE("outputs are replaced whole, or kept with --no-clobber", "[cli][usage]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 4, 4, random_bytes(48));
  std::filesystem::create_directory(dir / "out");
  put_text(dir / "out/a.mask.png", "precious");
  const std::vector<std::string> call{"mask", "a.png", "--where", "gray > 3",
                                      "-o",   "out",   "--write", "mask"};
  auto keeping = call;
  keeping.push_back("--no-clobber");
  check_error(run_tool(dir, keeping), 1, "out/a.mask.png: exists and --no-clobber keeps it");
  CHECK(text_of_file(dir / "out/a.mask.png") == "precious");
  CHECK(run_tool(dir, call).exit_code == 0);
  CHECK(text_of_file(dir / "out/a.mask.png").starts_with("\x89PNG"));
  CHECK(dir.files() == std::set<std::string>{"a.png", "out/a.mask.png", "out/how.json"});
}

TEST_CASE("a run says as much as it is asked to", "[cli][usage]") {
  const TempDir dir;
  write_stripes(dir / "stripes.png");
  const std::string mask =
      "mask stripes.png --where \"lab.l > 40\" --figures none --write mask -o out/";
  const Outcome quiet = run_tool(dir, words_of(mask + " --quiet"));
  CHECK(quiet.exit_code == 0);
  CHECK(quiet.out.empty());
  CHECK(quiet.err.empty());
  CHECK(std::filesystem::exists(dir / "out/stripes.mask.png"));
  const Outcome verbose = run_tool(dir, words_of(mask + " --verbose"));
  CHECK(verbose.exit_code == 0);
  CHECK_THAT(verbose.out, Catch::Contains("wrote out/stripes.mask.png"));
  CHECK_THAT(verbose.err,
             Catch::StartsWith("chalcedony: mask of 1 input, ") && Catch::EndsWith(" s\n"));
  const Outcome wrong =
      run_tool(dir, words_of("mask no.png --where \"lab.l > 40\" -o out/ --quiet"));
  check_error(wrong, 1, "no.png: no such file");
}

TEST_CASE("a disk that fills up leaves the old file and no half one", "[cli][usage]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 600, 400, random_bytes(600 * 400 * 3));
  put_text(dir / "o.png", "old");
  put_text(dir / "o.tif", "old");
  put_text(dir / "o.jpg", "old");
  for (const char* out : {"o.png", "o.tif", "o.jpg"}) {
    ToolSettings full;
    full.file_limit = 100000;
    check_error(run_tool(dir, {"convert", "a.png", "-o", out}, full), 1,
                std::string(out) + ": cannot be written");
    CHECK(text_of_file(dir / out) == "old");
  }
  CHECK(dir.files() == std::set<std::string>{"a.png", "o.png", "o.tif", "o.jpg"});
}

TEST_CASE("a folder that may not be written is said", "[cli][usage]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 4, 4, random_bytes(48));
  put_text(dir / "file", "in the way");
  check_error(run_tool(dir, {"mask", "a.png", "--where", "gray > 3", "-o", "file/out"}), 1,
              "file/out: the folder cannot be made");
  if (::geteuid() == 0) return;  // root may write anywhere
  std::filesystem::create_directory(dir / "locked");
  ::chmod((dir / "locked").c_str(), 0500);
  check_error(run_tool(dir, {"mask", "a.png", "--where", "gray > 3", "-o", "locked"}), 1,
              "cannot be written");
}

TEST_CASE("a missing gnuplot is a warning that names the package", "[cli][usage]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 4, 4, random_bytes(48));
  ToolSettings bare;
  bare.path = dir.path().string();
  const Outcome run = run_tool(dir, {"histogram", "a.png", "-o", "out"}, bare);
  CHECK(run.exit_code == 0);
  CHECK_THAT(run.err, Catch::StartsWith("chalcedony: warning: ") && Catch::Contains("gnuplot-nox"));
  CHECK(dir.files() == std::set<std::string>{"a.png", "out/a.histogram.csv", "out/how.json"});
}

TEST_CASE("without -o only the summary is printed, quiet prints nothing", "[cli][usage]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 4, 4, random_bytes(48));
  const Outcome run = run_tool(dir, {"mask", "a.png", "--where", "gray >= 0"});
  CHECK(run.exit_code == 0);
  CHECK_THAT(run.out, Catch::Contains("16 of 16 counted pixels selected, 100.00 %"));
  CHECK(dir.files() == std::set<std::string>{"a.png"});
  const Outcome quiet = run_tool(dir, {"mask", "a.png", "--where", "gray >= 0", "-q"});
  CHECK(quiet.out.empty());
  CHECK(quiet.err.empty());
  const Outcome verbose = run_tool(dir, {"mask", "a.png", "--where", "gray >= 0", "-v"});
  CHECK_THAT(verbose.err, Catch::Contains("mask of 1 input, "));
  const Outcome progress = run_tool(dir, {"inspect", "a.png", "--progress", "always"});
  CHECK(progress.exit_code == 0);
}

TEST_CASE("help of every command shows its examples, and each runs on the demo data",
          "[cli][help]") {
  const TempDir demo;
  std::filesystem::copy(CHALCEDONY_DEMO_DATA, demo.path(),
                        std::filesystem::copy_options::recursive);
  const Outcome overview = run_tool(demo, {"--help"});
  CHECK(overview.exit_code == 0);
  CHECK(run_tool(demo, {"help"}).out == overview.out);
  for (const cli::Command* command : cli::all_commands()) {
    const std::string name(command->name);
    CHECK_THAT(overview.out, Catch::Contains(name));
    const Outcome help = run_tool(demo, {name, "--help"});
    CHECK(help.exit_code == 0);
    CHECK(run_tool(demo, {"help", name}).out == help.out);
    CHECK(command->examples.size() == 3);
    for (const cli::Example& example : command->examples) {
      const std::string line(example.arguments);
      INFO(line);
      CHECK_THAT(help.out, Catch::Contains("chalcedony " + line));
      const Outcome run = run_tool(demo, words_of(line));
      INFO(run.err);
      CHECK(run.exit_code == 0);
      CHECK(run.err.empty());
    }
  }
  CHECK_THAT(run_tool(demo, {"--version"}).out, Catch::StartsWith("chalcedony 0."));
}

TEST_CASE("no two commands write results of one name", "[cli][usage]") {
  const std::regex name(R"((<stem>|[a-z]+)(\.[a-z-]+)*\.(csv|png|tif|json|geojson|css|svg|html))");
  std::map<std::string, std::string> writer;
  for (const cli::Command* command : cli::all_commands()) {
    if (!command->results) continue;
    for (const ResultKind& kind : command->results()) {
      const std::string meaning(kind.meaning);
      for (std::sregex_iterator at(meaning.begin(), meaning.end(), name), end; at != end; ++at) {
        const auto [one, is_new] = writer.emplace(at->str(), command->name);
        INFO(at->str() << " of " << one->second << " and " << command->name);
        CHECK((is_new || one->second == command->name));
      }
    }
  }
  CHECK(writer.size() > 60);
  CHECK(writer.count("<stem>.areas.csv") == 1);
  CHECK(writer.count("areas.figure.png") == 1);
}

TEST_CASE("an option that means nothing to a command is not told, and answered with why",
          "[cli][usage]") {
  const TempDir dir;
  std::size_t answered = 0;
  for (const cli::Command* command : cli::all_commands()) {
    const std::string name(command->name);
    const std::string help = run_tool(dir, {name, "--help"}).out;
    for (const std::string& refused : command->refuses.options) {
      const std::string option = "--" + refused;
      INFO(name << " " << option);
      CHECK_THAT(help, !Catch::Contains("      " + option + " "));
      check_error(run_tool(dir, {name, "a.png", option, "1", "-o", "out"}), 2,
                  option + " means nothing here: " + command->refuses.why + "; leave it out");
      ++answered;
    }
  }
  CHECK(answered > 50);
  CHECK(dir.files().empty());
  // That there are to be no figures is so of commands that draw none.
  write_rgb(dir / "a.png", 2, 1, {0, 200, 0, 200, 0, 0});
  CHECK(run_tool(dir, {"inspect", "a.png", "--figures", "none"}).exit_code == 0);
}

TEST_CASE("only commands that draw something at random have a seed", "[cli][usage]") {
  const TempDir dir;
  std::set<std::string> with_seed;
  for (const cli::Command* command : cli::all_commands()) {
    const std::string name(command->name);
    if (run_tool(dir, {name, "--help"}).out.find("--seed N") != std::string::npos)
      with_seed.insert(name);
  }
  CHECK(with_seed ==
        std::set<std::string>{"assess", "cluster", "convert", "palette", "run", "train", "truth"});
  check_error(run_tool(dir, {"sheet", "a.png", "--seed", "2"}), 2,
              "there is no option '--seed' here; other commands have it");
}

TEST_CASE("no folder is made by the name of a file, and one that is there is taken",
          "[cli][usage]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 2, 1, {0, 200, 0, 200, 0, 0});
  const std::vector<std::string> mask{"mask", "a.png", "--auto", "srgb.r", "--write", "mask", "-q"};
  for (const std::vector<std::string>& words :
       {with(mask, {"-o", "mask.PNG"}), with(mask, {"-o", "mask.json"}), {"demo", "-o", "x.html"}})
    check_error(run_tool(dir, words), 2,
                "--output: results go into a folder, and '" + words.back() +
                    "' is the name of a file; name a folder");
  check_error(run_tool(dir, {"convert", "a.png", "lab", "-o", "x.tif"}), 2,
              "--output: 'x.tif' is one file, and there are 2 inputs, the last of them lab; name a "
              "folder");
  CHECK(dir.files() == std::set<std::string>{"a.png"});
  for (const char* folder : {"survey.2026", "mask.png/"})
    CHECK(run_tool(dir, with(mask, {"-o", folder})).exit_code == 0);
  CHECK(run_tool(dir, with(mask, {"-o", "mask.png"})).exit_code == 0);
  CHECK(dir.files().count("mask.png/a.mask.png") == 1);
  const std::vector<std::string> convert{"convert", "a.png", "--to", "oklab", "-q"};
  check_error(
      run_tool(dir, with(convert, {"-o", "survey.2027"})), 2,
      "survey.2027: '.2027' is no picture format this program writes; end the name in .png, "
      ".tif, .jpg or .webp");
  CHECK(dir.files().count("survey.2027") == 0);
  CHECK(run_tool(dir, with(convert, {"-o", "survey.2026"})).exit_code == 0);
  CHECK(dir.files().count("survey.2026/a.oklab.tif") == 1);
  CHECK(run_tool(dir, with(mask, {"-o", "survey.2026", "--resume"})).exit_code == 0);
}

TEST_CASE("a picture whose name is no UTF-8 is worked on like any other", "[cli][usage]") {
  const TempDir dir;
  const std::string name = "gr\xfcn";  // of a disk that was written long ago
  write_rgb(dir / (name + ".png"), 2, 1, {0, 200, 0, 200, 0, 0});
  for (const std::vector<std::string>& words :
       {std::vector<std::string>{"inspect"},
        {"mask", "--auto", "srgb.r", "--figures", "none"},
        {"palette", "--unique", "--figures", "none"},
        {"measure", "--image", name + ".png", "--figures", "none"}}) {
    const bool measures = words[0] == "measure";
    const std::string picture = measures ? "out/" + name + ".mask.png" : name + ".png";
    const auto run = run_tool(dir, with(words, {picture, "-o", "out", "--summary", "json"}));
    INFO(words[0] << " " << run.err);
    REQUIRE(run.exit_code == 0);
    CHECK(nlohmann::json::parse(run.out)["inputs"][0]["file"] ==
          (measures ? "out/gr\xef\xbf\xbdn.mask.png" : "gr\xef\xbf\xbdn.png"));
  }
}

TEST_CASE("the commands of the README run as typed, one after the other", "[cli][docs]") {
  CHECK(commands_run_of(CHALCEDONY_DOCS "/../README.md") >= 25);
}

TEST_CASE("what answers questions runs as typed, one after the other", "[cli][docs]") {
  CHECK(commands_run_of(CHALCEDONY_DOCS "/questions.md") >= 40);
}

TEST_CASE("every field of a summary is listed in the documentation", "[cli][docs]") {
  const TempDir demo;
  std::filesystem::copy(CHALCEDONY_DEMO_DATA, demo.path(),
                        std::filesystem::copy_options::recursive);
  const std::string page = text_of_file(CHALCEDONY_DOCS "/summaries.md");
  for (const cli::Command* command : cli::all_commands()) {
    // Commands that work on what another one wrote begin their examples with it.
    for (const cli::Example& before : command->examples)
      if (!before.arguments.starts_with(command->name))
        run_tool(demo, words_of(std::string(before.arguments)));
    auto words = words_of(std::string(command->examples[2].arguments));
    words.insert(words.end(), {"--summary", "json"});
    if (command->name == "demo") words = {"demo", "-o", "d", "--summary", "json"};
    const auto summary = nlohmann::json::parse(run_tool(demo, words).out);
    CHECK_THAT(page, Catch::Contains("## " + std::string(command->name)));
    std::vector<const nlohmann::json*> open{&summary};
    while (!open.empty()) {
      const nlohmann::json& at = *open.back();
      open.pop_back();
      for (const auto& [key, value] : at.items()) {
        if (at.is_object()) {
          INFO(command->name << ": " << key);
          CHECK_THAT(page, Catch::Contains("`" + key + "`"));
        }
        if (value.is_structured()) open.push_back(&value);
      }
    }
  }
}

TEST_CASE("manual pages and completion know what --help knows", "[cli][help]") {
  const TempDir dir;
  const std::string program = cli::program_man_page(), script = cli::bash_completion();
  const auto roff = [](const std::string& name) {
    std::string out;
    for (const char c : name) out += c == '-' ? std::string("\\-") : std::string(1, c);
    return out;
  };
  for (const cli::Command* command : cli::all_commands()) {
    const std::string name(command->name);
    INFO(name);
    CHECK_THAT(program, Catch::Contains("\\fB" + name + "\\fR"));
    const std::string page = cli::man_page(*command);
    const Outcome help = run_tool(dir, {name, "--help"});
    std::size_t options = 0;
    std::istringstream lines(help.out);
    for (std::string line; std::getline(lines, line);) {
      const std::size_t first = line.find_first_not_of(' '), at = line.find("--");
      if (first > 6 || line[first] != '-' || at == std::string::npos) continue;
      const std::string word = line.substr(at, line.find_first_of(" ,", at) - at);
      INFO(word);
      CHECK_THAT(page, Catch::Contains("\\fB" + roff(word) + "\\fR"));
      const std::size_t case_at = script.find("    " + name + ") options='");
      REQUIRE(case_at != std::string::npos);
      CHECK(script.substr(case_at, script.find('\n', case_at) - case_at).find(word + " ") !=
            std::string::npos);
      ++options;
    }
    CHECK(options >= 5);
    for (const cli::Example& example : command->examples)
      CHECK_THAT(page, Catch::Contains(roff(std::string(example.meaning))));
  }
  CHECK_THAT(script, Catch::Contains("    mask:--figures) values='png svg pdf none ' ;;\n"));
  CHECK_THAT(script, Catch::Contains("    convert:--to) values='"));
  CHECK_THAT(script, Catch::Contains("help --help --version' -- \"$word\"") &&
                         Catch::Contains("[ \"$command\" = help ]"));
  for (const Space* space : all_spaces()) {
    INFO(space->id);
    const bool offered = script.find(" " + std::string(space->id) + " ") != std::string::npos ||
                         script.find("'" + std::string(space->id) + " ") != std::string::npos;
    CHECK(offered == !space->internal);
  }
}

TEST_CASE("options come from a file, and what is typed wins", "[cli][config]") {
  const TempDir dir;
  write_stripes(dir / "a.png");
  put_text(dir / "our.yaml",
           "where: gray > 3\nwrite: mask\nfigures: none\ninvert: true\nbins: 8\n");
  const auto selected = [&](const std::vector<std::string>& more) {
    return summary_of(
               run_tool(dir, with({"mask", "a.png", "--config", "our.yaml", "--summary", "json"},
                                  more)))["inputs"][0]["selected"]
        .get<int>();
  };
  CHECK(selected({"-o", "out"}) == 0);
  CHECK(dir.files() ==
        std::set<std::string>{"a.png", "our.yaml", "out/a.mask.png", "out/how.json"});
  CHECK(selected({"--where", "srgb.r > 150 and srgb.b < 90"}) == 200 - 80);
  // The record holds the options, not the file.
  const auto how = nlohmann::json::parse(text_of_file(dir / "out/how.json"));
  CHECK(how["runs"][0]["options"] ==
        nlohmann::json{
            {"where", "gray > 3"}, {"write", "mask"}, {"figures", "none"}, {"invert", true}});
  // What means nothing to a command is left out, as are options of other commands.
  CHECK(run_tool(dir, {"convert", "a.png", "--config", "our.yaml", "-o", "b.png"}).exit_code == 0);
  put_text(dir / "our.yaml", "where: gray > 3\nwritet: mask\n");
  check_error(run_tool(dir, {"mask", "a.png", "--config", "our.yaml"}), 1,
              "our.yaml:2:1: no command has an option 'writet'");
  put_text(dir / "our.yaml", "where: true\n");
  check_error(run_tool(dir, {"mask", "a.png", "--config", "our.yaml"}), 1,
              "our.yaml:1:1: the option 'where' needs a value");
  check_error(run_tool(dir, {"mask", "a.png", "--config", "none.yaml"}), 1, "none.yaml");
}
