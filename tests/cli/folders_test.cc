// Folders and lists as inputs, at the built program.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "io/file/folder_lock.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

/// survey/pane-10, pane-9, figures, notes.txt, .hidden.png and survey/north/pane-9.
void write_survey(const TempDir& dir) {
  std::filesystem::create_directories(dir / "survey/north");
  for (const std::string name :
       {"pane-10.png", "pane-9.png", "north/pane-9.png", ".hidden.png", "pane-9.mask.figure.png",
        "pane-9.histogram.png", "pane-9.joint-2.png", "pane-9.palette.png"})
    write_rgb(dir / ("survey/" + name), 2, 1, {200, 30, 40, 30, 60, 180});
  put_text(dir / "survey/notes.txt", "not a picture");
}

std::vector<std::string> files_of(const json& summary) {
  std::vector<std::string> files;
  for (const json& one : summary["inputs"]) files.push_back(one["file"]);
  return files;
}

using Names = std::vector<std::string>;

}  // namespace

TEST_CASE("a folder stands for its pictures in natural order", "[cli][folders]") {
  const TempDir dir;
  write_survey(dir);
  const json found = summary_of(run_tool(dir, {"inspect", "survey", "--summary", "json"}));
  CHECK(files_of(found) == Names{"survey/pane-9.png", "survey/pane-10.png"});
  const json all =
      summary_of(run_tool(dir, {"mask", "survey", "--recursive", "--where", "srgb.r > 100",
                                "--write", "mask", "-o", "out", "--summary", "json"}));
  CHECK(files_of(all) ==
        Names{"survey/pane-9.png", "survey/pane-10.png", "survey/north/pane-9.png"});
  CHECK(all["outputs"] ==
        json{"out/pane-9.mask.png", "out/pane-10.mask.png", "out/north/pane-9.mask.png"});
  CHECK(labels_in(dir / "out/north/pane-9.mask.png") == std::vector<std::uint8_t>{255, 0});
  const json pictures = summary_of(run_tool(
      dir, {"reframe", "survey", "--recursive", "--turn", "90", "-o", "t", "--summary", "json"}));
  CHECK(std::filesystem::exists(dir / "t/north/pane-9.reframed.png"));
  CHECK(pictures["outputs"].size() == 3);
}

TEST_CASE("a folder of pictures can be the folder of their results, twice", "[cli][folders]") {
  const TempDir dir;
  for (const char* name : {"pane-1.png", "pane-2.png"})
    write_rgb(dir / name, 2, 1, {200, 30, 40, 30, 60, 180});
  for (int run = 0; run < 2; ++run)
    for (const Words& words : {words_of("histogram . -o . --joint hsv.h,hsv.s -q"),
                               words_of("palette . -o . --unique -q"), words_of("inspect . -o .")})
      CHECK(run_tool(dir, words).exit_code == 0);
  const json how = json::parse(text_of_file(dir / "how.json"));
  CHECK(how["runs"].size() == 3);
  for (const json& run : how["runs"]) CHECK(run["inputs"].size() == 2);
}

TEST_CASE("results inside the folder are not taken as inputs again", "[cli][folders]") {
  const TempDir dir;
  write_survey(dir);
  for (int run = 0; run < 2; ++run) {
    const json found = summary_of(run_tool(dir, {"reframe", "survey", "--recursive", "--turn", "90",
                                                 "-o", "survey/turned", "--summary", "json"}));
    CHECK(found["inputs"].size() == 3);
  }
}

TEST_CASE("a list names more inputs", "[cli][folders]") {
  const TempDir dir;
  write_survey(dir);
  // Some programs mark a text as UTF-8 in front.
  put_text(dir / "list.txt", "\xEF\xBB\xBFsurvey/pane-10.png\r\n\nsurvey/north\n");
  const json found = summary_of(
      run_tool(dir, {"inspect", "survey/pane-9.png", "--list", "list.txt", "--summary", "json"}));
  CHECK(files_of(found) ==
        Names{"survey/pane-9.png", "survey/pane-10.png", "survey/north/pane-9.png"});
}

TEST_CASE("failures among many inputs are listed, and gone when they are mended",
          "[cli][folders]") {
  const TempDir dir;
  write_survey(dir);
  put_text(dir / "survey/bad.png", "this is no picture");
  const std::vector<std::string> command{"mask", "survey", "--where", "srgb.r > 100",
                                         "-o",   "out",    "--write", "mask"};
  const auto run = run_tool(dir, command);
  check_error(run, 1, "survey/bad.png");
  const auto lines = lines_of(dir / "out/failures.csv");
  REQUIRE(lines.size() == 2);
  CHECK(lines[0] == "file,error");
  CHECK_THAT(lines[1], Catch::StartsWith("survey/bad.png,"));
  CHECK(std::filesystem::exists(dir / "out/pane-10.mask.png"));
  CHECK_FALSE(std::filesystem::exists(dir / "out/bad.mask.png"));
  std::filesystem::remove(dir / "survey/bad.png");
  CHECK(run_tool(dir, command).exit_code == 0);
  CHECK_FALSE(std::filesystem::exists(dir / "out/failures.csv"));
}

TEST_CASE("folders and lists that cannot be used are refused", "[cli][folders]") {
  const TempDir dir;
  write_survey(dir);
  std::filesystem::create_directories(dir / "empty");
  check_error(run_tool(dir, {"inspect", "empty"}), 2,
              "empty: the folder holds no PNG, JPEG, TIFF or WebP, figures aside");
  check_error(run_tool(dir, {"inspect", "--list", "nothing.txt"}), 1,
              "nothing.txt: the list cannot be read");
  check_error(run_tool(dir, {"inspect", "--list", "survey/pane-9.png", "-o", "out"}), 1,
              "survey/pane-9.png: the list is no text; name a text file with one picture a line");
  check_nothing_in(dir, "out");
  put_text(dir / "blank.txt", "\n");
  check_error(run_tool(dir, {"inspect", "--list", "blank.txt"}), 2, "no input is given");
  // One name from two folders: found before anything is written.
  check_error(
      run_tool(dir, {"mask", "survey", "survey/north", "--where", "srgb.r > 1", "-o", "out"}), 2,
      "survey/pane-9.png and survey/north/pane-9.png would write results of the same name");
  check_nothing_in(dir, "out");
}

TEST_CASE("tables hold all pictures of a run", "[cli][folders]") {
  const TempDir dir;
  write_stripes(dir / "a.png");
  write_stripes(dir / "b.png");
  const auto looked = run_tool(dir, {"inspect", "a.png", "b.png", "-o", "out"});
  CHECK(looked.exit_code == 0);
  const auto all = rows_of(dir / "out/statistics.csv");
  REQUIRE(all.size() == 6);
  CHECK(all[0].at("picture") == "a.png");
  CHECK(all[3].at("picture") == "b.png");
  auto own = rows_of(dir / "out/b.statistics.csv");
  REQUIRE(own.size() == 3);
  for (std::size_t c = 0; c < 3; ++c) CHECK(own[c] == all[3 + c]);
  // On the terminal one table, a row a channel.
  CHECK_THAT(looked.out, Catch::Contains("  picture") && Catch::Contains("  b.png    srgb.b"));
  summary_of(run_tool(dir, {"train", "a.png", "--sample", "red=0,0,8,4", "--sample", "blue=9,0,4,4",
                            "-o", "out", "--write", "model", "--summary", "json"}));
  summary_of(run_tool(dir, {"classify", "a.png", "b.png", "--model", "out/model.json", "-o", "out",
                            "--pixel-size", "2cm", "--summary", "json"}));
  const auto areas = rows_of(dir / "out/areas.csv");
  REQUIRE(areas.size() == 6);
  const auto first = rows_of(dir / "out/a.areas.csv");
  CHECK(areas[2].at("class") == "blue");
  CHECK(areas[2].at("picture") == "a.png");
  for (const char* field : {"index", "color", "pixels", "share_percent", "unit", "area"})
    CHECK(areas[2].at(field) == first[2].at(field));
  CHECK(std::stod(areas[2].at("area")) == 4 * std::stod(areas[2].at("pixels")));
  // A single picture has its own table only.
  summary_of(run_tool(dir, {"inspect", "a.png", "-o", "one", "--summary", "json"}));
  CHECK_FALSE(std::filesystem::exists(dir / "one/statistics.csv"));
}

TEST_CASE("two runs of one command into one folder at once: the second is told", "[cli][folders]") {
  const TempDir dir;
  write_stripes(dir / "a.png");
  std::filesystem::create_directory(dir / "out");
  put_text(dir / "r.yaml",
           "chalcedony: recipe\nsteps:\n  - command: inspect\n    options: {space: hsv}\n");
  for (const char* command : {"inspect", "smooth", "run"}) {
    std::vector<std::string> arguments{command, "a.png", "-o", "out"};
    if (arguments[0] == "smooth")
      arguments.insert(arguments.end(), {"--filter", "mean", "--radius", "1"});
    if (arguments[0] == "run") arguments.insert(arguments.begin() + 1, "r.yaml");
    {
      const FolderLock other(dir / "out", command);
      check_error(run_tool(dir, arguments), 1,
                  "out: another run of '" + arguments[0] + "' writes into this folder");
      // Another command may.
      CHECK(run_tool(dir, {"mask", "a.png", "--where", "gray > 3", "-o", "out"}).exit_code == 0);
    }
    CHECK(run_tool(dir, arguments).exit_code == 0);
  }
  // What a killed run leaves behind holds nobody up, and nothing hidden stays.
  put_text(dir / "out/.chalcedony-inspect", "");
  CHECK(run_tool(dir, {"inspect", "a.png", "-o", "out"}).exit_code == 0);
  for (const auto& entry : std::filesystem::directory_iterator(dir / "out"))
    CHECK(entry.path().filename().string().front() != '.');
}

TEST_CASE("a run that fails before its first result leaves no folder", "[cli][folders]") {
  const TempDir dir;
  write_survey(dir);
  put_text(dir / "survey/half.png", text_of_file(dir / "survey/pane-9.png").substr(0, 50));
  std::filesystem::create_directory(dir / "there");
  const std::vector<std::vector<std::string>> calls{
      {"assess", "survey/pane-9.png", "--reference", "survey/*.truth.png"},
      {"mask", "survey/half.png", "--where", "srgb.r > 100"},
      {"cluster", "survey/half.png", "--k", "2"},
      {"convert", "survey/half.png", "--to", "lab"},
      {"measure", "survey/missing.png"}};
  for (const auto& call : calls) {
    INFO(call[0]);
    CHECK(run_tool(dir, with(call, {"-o", "made/deep"})).exit_code == 1);
    CHECK_FALSE(std::filesystem::exists(dir / "made"));
    CHECK(run_tool(dir, with(call, {"-o", "there"})).exit_code == 1);
    CHECK(std::filesystem::exists(dir / "there"));
  }
}
