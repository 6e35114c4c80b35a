#include "job/learn/sample_files.h"

#include <catch2/catch.hpp>

#include "core/error.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;
using Paths = std::vector<std::filesystem::path>;

TEST_CASE("sample files go with the inputs they are called after, or in their order",
          "[job][samples]") {
  CHECK(sample_files_of({"b.geojson", "a.geojson"}, {"a.png", "b.png"}) ==
        std::vector<Paths>{{"a.geojson"}, {"b.geojson"}});
  // Called after none, or both after one.
  CHECK(sample_files_of({"y.geojson", "a.geojson"}, {"a.png", "b.png"}) ==
        std::vector<Paths>{{"y.geojson"}, {"a.geojson"}});
  CHECK(sample_files_of({"a-2.geojson", "a-1.geojson"}, {"a.png", "b.png"}) ==
        std::vector<Paths>{{"a-2.geojson"}, {"a-1.geojson"}});
  CHECK(sample_files_of({}, {"a.png", "b.png"}) == std::vector<Paths>(2));
  CHECK(sample_files_of({"x.geojson", "y.png"}, {"a.png"}) ==
        std::vector<Paths>{{"x.geojson", "y.png"}});
}

TEST_CASE("of a folder the sample files are meant that go with the inputs", "[job][samples]") {
  const TempDir dir;
  std::filesystem::create_directory(dir / "s");
  for (const char* name : {"s/a.samples.geojson", "s/b.samples.geojson", "s/b.suggested.geojson",
                           "s/old_b.geojson", "s/c.png"})
    put_text(dir / name, "");
  RunLedger ledger;
  const auto meant = [&](const std::vector<std::string>& named, const Paths& inputs,
                         bool all = true) {
    Paths paths;
    for (const std::string& one : named) paths.push_back(dir / one);
    std::vector<Paths> files = sample_files_named(paths, inputs, all, ledger);
    for (Paths& its : files)
      for (auto& file : its) file = file.filename();
    return files;
  };
  const Paths both{dir / "a.png", dir / "b.png"};
  CHECK(meant({"s"}, both) == std::vector<Paths>{{"a.samples.geojson"}, {"b.samples.geojson"}});
  CHECK(meant({"s/*.suggested.geojson"}, both, false) ==
        std::vector<Paths>{{}, {"b.suggested.geojson"}});
  const auto read = ledger.partners_of(dir / "b.png");
  REQUIRE(read.size() == 2);
  CHECK(read[0].file == dir / "s/b.samples.geojson");
  CHECK(read[1].file == dir / "s/b.suggested.geojson");
  // A name that begins with what is around the star; and another file besides, by its name.
  CHECK(meant({"s/old_*.geojson", "t/a.more.geojson"}, both, false) ==
        std::vector<Paths>{{"a.more.geojson"}, {"old_b.geojson"}});
  // A label picture; and one file stands for itself, whatever it is called.
  CHECK(meant({"s"}, {dir / "c.tif"}) == std::vector<Paths>{{"c.png"}});
  CHECK(meant({"s/x.geojson"}, {dir / "a.png"}) == std::vector<Paths>{{"x.geojson"}});
  CHECK_THROWS_WITH(meant({"s/*.suggested.geojson"}, both),
                    Catch::Contains("a.png: no file of ") && Catch::Contains("goes with its name"));
  CHECK_THROWS_WITH(meant({"s"}, {dir / "x.png"}, false),
                    Catch::EndsWith("s: no file goes with the name of an input; name the two "
                                    "alike, as pane.samples.geojson and pane.png"));
}

TEST_CASE("where inputs may be without sample files, names come first", "[job][samples]") {
  const Paths inputs{"a.png", "b.png"};
  CHECK(sample_files_of({"b.suggested.geojson"}, inputs, false) ==
        std::vector<Paths>{{}, {"b.suggested.geojson"}});
  CHECK(sample_files_of({"b.1.geojson", "b.2.geojson"}, inputs, false) ==
        std::vector<Paths>{{}, {"b.1.geojson", "b.2.geojson"}});
  CHECK(sample_files_of({"x.geojson", "b.2.geojson"}, inputs, false) ==
        std::vector<Paths>{{"x.geojson"}, {"b.2.geojson"}});
  CHECK_THROWS_WITH(sample_files_of({"x.geojson"}, inputs, false),
                    Catch::Contains("x.geojson is called after none of the inputs"));
}

TEST_CASE("more sample files than inputs go with those they are called after", "[job][samples]") {
  CHECK(sample_files_of({"out/p-2.suggested.geojson", "p.samples.geojson", "p-2.samples.geojson",
                         "p-3.geojson"},
                        {"in/p.png", "in/p-2.tif"}) ==
        std::vector<Paths>{{"p.samples.geojson", "p-3.geojson"},
                           {"out/p-2.suggested.geojson", "p-2.samples.geojson"}});
  CHECK_THROWS_WITH(
      sample_files_of({"a.1.geojson", "a.2.geojson", "c.geojson"}, {"a.png", "b.png"}),
      Catch::Contains("c.geojson is called after none of the inputs; where there are "
                      "not as many sample files as inputs, name them alike"));
  for (const Paths& files :
       {Paths{"a.geojson"}, Paths{"a.1.geojson", "a.2.geojson", "a.3.geojson"}})
    CHECK_THROWS_WITH(sample_files_of(files, {"a.png", "b.png"}),
                      Catch::Contains("there are 2 inputs and ") &&
                          Catch::Contains("give one --samples for each input"));
}
