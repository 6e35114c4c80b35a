// The journal of a run's pictures, and what is written down of a run.
#include "job/run/picture_journal.h"

#include <catch2/catch.hpp>

#include "core/error.h"
#include "job/run/run_facts.h"
#include "job/run/run_record.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

JournalText journal(const std::filesystem::path& folder) {
  JournalText journal;
  journal.header = {{"chalcedony", "pictures"}, {"version", 1}, {"pictures", 3}};
  JournalEntry done;
  done.place = 1;
  done.file = "in/b.png";
  done.state = {12, 34567, "00ff"};
  done.outputs = {folder / "b.mask.png"};
  done.summary = {{"file", "in/b.png"}, {"output", (folder / "b.mask.png").string()}};
  JournalEntry failed;
  failed.place = 0;
  failed.file = "in/a.png";
  failed.error = "in/a.png: is empty";
  journal.entries = {done, failed};
  return journal;
}

}  // namespace

TEST_CASE("a journal comes back in the order of the inputs", "[job][journal]") {
  const TempDir dir;
  write_journal(dir / "j", dir / "out", journal(dir / "out"));
  const JournalText read = read_journal(dir / "j", dir / "out");
  CHECK(read.header["pictures"] == 3);
  REQUIRE(read.entries.size() == 2);
  CHECK(read.entries[0].error == "in/a.png: is empty");
  const JournalEntry& done = read.entries[1];
  CHECK(done.place == 1);
  CHECK(done.state.bytes == 12);
  CHECK(done.state.modified == 34567);
  CHECK(done.state.hash == "00ff");
  CHECK(done.outputs == std::vector<std::filesystem::path>{dir / "out/b.mask.png"});
  // The folder is not in the file: read from elsewhere, results lie there.
  CHECK(text_of_file(dir / "j").find((dir / "out").string()) == std::string::npos);
  CHECK(read_journal(dir / "j", "s1").entries[1].outputs[0] == "s1/b.mask.png");
  CHECK(read_journal(dir / "j", "s1").entries[1].summary["output"] == "s1/b.mask.png");
}

TEST_CASE("what begins like a journal and is none is refused", "[job][journal]") {
  const TempDir dir;
  for (const char* const text :
       {"", "[]", "{}", R"({"chalcedony": 2})", R"({"chalcedony": "how"})"}) {
    put_text(dir / "j", text);
    CHECK_THROWS_WITH(
        read_journal(dir / "j", dir / "out"),
        Catch::EndsWith("j: is no journal of pictures; give a folder as a run left it"));
  }
  put_text(dir / "j", R"({"chalcedony": "pictures", "version": 2})");
  CHECK_THROWS_WITH(read_journal(dir / "j", dir / "out"),
                    Catch::EndsWith("j: was written by a later version; use that version"));
  put_text(dir / "j", R"({"chalcedony": "pictures", "version": "old"})");
  CHECK(read_journal(dir / "j", dir / "out").entries.empty());
}

TEST_CASE("a journal that was cut short holds what is whole", "[job][journal]") {
  const TempDir dir;
  write_journal(dir / "j", dir / "out", journal(dir / "out"));
  const std::string text = text_of_file(dir / "j");
  const std::size_t second = text.find('\n', text.find('\n') + 1) + 1;
  for (const std::size_t cut : {second, second + 1, text.size() - 2}) {
    put_text(dir / "j", text.substr(0, cut));
    const JournalText read = read_journal(dir / "j", dir / "out");
    REQUIRE(read.entries.size() == 1);
    CHECK(read.entries[0].place == 1);
  }
  put_text(dir / "j", "{\"chalcedony\":\"pictures\",\"version\":2}\n");
  CHECK_THROWS_WITH(read_journal(dir / "j", dir / "out"),
                    Catch::Contains("j: was written by a later version"));
  put_text(dir / "j", "[1]\n");
  CHECK_THROWS_WITH(read_journal(dir / "j", dir / "out"),
                    Catch::Contains("j: is no journal of pictures"));
}

TEST_CASE("paths into the results folder are marked, and nothing else", "[job][how]") {
  const Json values{{"a", "out/x.png"},
                    {"command", "out"},
                    {"operands", {"out", "outer"}},
                    {"inputs", {{{"file", "out"}}}},
                    {"shard", "out/2"},
                    {"c", "outer/x.png"},
                    {"d", {"out/", 3}},
                    {"e", "not out/x.png"}};
  const Json marked = folder_to_mark(values, "out/");
  CHECK(marked == Json{{"a", "{out}/x.png"},
                       {"command", "out"},
                       {"operands", {"{out}", "outer"}},
                       {"inputs", {{{"file", "{out}"}}}},
                       {"shard", "out/2"},
                       {"c", "outer/x.png"},
                       {"d", {"{out}/", 3}},
                       {"e", "not out/x.png"}});
  CHECK(mark_to_folder(marked, "out") == values);
}

TEST_CASE("the words of a run are those that were typed", "[job][how]") {
  const Json run{
      {"command", "mask"},
      {"operands", {"a.png", "{out}/b.png"}},
      {"options", {{"where", "gray > 3"}, {"invert", true}, {"and", {"{out}/m.png", "n.png"}}}}};
  CHECK(words_of_run(run, "again") ==
        std::vector<std::string>{"mask", "a.png", "again/b.png", "--where", "gray > 3", "--invert",
                                 "--and", "again/m.png", "--and", "n.png", "-o", "again"});
  Json to_file = run;
  to_file["output"] = "c.png";
  CHECK(words_of_run(to_file, "again/c.png")[2] == "again/b.png");
}

TEST_CASE("a record is read only when it is one", "[job][how]") {
  const TempDir dir;
  const Json run{{"program", "0.1.0"},      {"command", "mask"},        {"from", "."},
                 {"operands", {"a.png"}},   {"options", {{"x", "y"}}},  {"files", Json::array()},
                 {"inputs", Json::array()}, {"outputs", {"a.mask.png"}}};
  write_record(dir / "how.json", {run});
  CHECK(read_record(dir / "how.json") == std::vector<Json>{run});
  write_record(dir / "how.json", {run, Json{{"command", "mask"}}});
  CHECK_THROWS_WITH(read_record(dir / "how.json"), Catch::Contains("is damaged"));
  put_text(dir / "how.json", "{\"chalcedony\": \"how\", \"version\": 9, \"runs\": []}");
  CHECK_THROWS_WITH(read_record(dir / "how.json"), Catch::Contains("by a later version"));
  for (const char* text : {"", "{}", "[]", "{\"chalcedony\": \"how\"}"}) {
    put_text(dir / "how.json", text);
    CHECK_THROWS_WITH(read_record(dir / "how.json"), Catch::Contains("is no record of runs"));
  }
  CHECK_THROWS_WITH(read_record(dir / "none.json"), Catch::Contains("none.json"));
}
