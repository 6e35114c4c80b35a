// Which file of a folder goes with which input, by their names.
#include "job/run/partner_files.h"

#include <catch2/catch.hpp>

#include "core/error.h"
#include "job/run/input_list.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

bool is_any(const std::filesystem::path&) { return true; }

void put_files(const TempDir& dir, const std::vector<std::string>& names) {
  for (const std::string& name : names) {
    std::filesystem::create_directories((dir / name).parent_path());
    put_text(dir / name, name);
  }
}

}  // namespace

TEST_CASE("a file goes with what is called after it", "[job][partners]") {
  const TempDir dir;
  put_files(dir, {"shots/p.png", "shots/p-2.png", "shots/p.mask.png", "shots/q.notes.txt",
                  "shots/.p-2.mask.png", "masks/p.mask.png", "masks/p-2.mask.png"});
  const PartnerFiles shots(dir / "shots", is_picture_name);
  CHECK(shots.of(dir / "masks/p.mask.png") == dir / "shots/p.png");
  CHECK(shots.of(dir / "masks/p-2.mask.png") == dir / "shots/p-2.png");
  CHECK(shots.of(dir / "masks/p-3.mask.png") == dir / "shots/p.png");
  CHECK_THROWS_WITH(
      shots.of(dir / "masks/q.mask.png"),
      Catch::Contains("no file of " + (dir / "shots").string() + " goes with its name") &&
          Catch::Contains("name the two alike"));
  // The input itself, and another version of it beside it, are not its partners.
  put_files(dir, {"both/r.mask.png", "both/r.mask.tif"});
  CHECK_THROWS_AS(PartnerFiles(dir / "both", is_any).of(dir / "both/r.mask.png"), InputError);
}

TEST_CASE("of pictures, one whose name only begins alike before a hyphen is another one",
          "[job][partners]") {
  const TempDir dir;
  put_files(dir, {"masks/p.mask.png", "masks/p-2.mask.png"});
  for (const char* named : {"masks", "masks/*.mask.png"}) {
    const PartnerFiles masks(dir / named, is_picture_name, "mask", NameCuts::kPoints);
    CHECK(masks.of(dir / "p-2.png") == dir / "masks/p-2.mask.png");
    CHECK(masks.of(dir / "p.smooth.png") == dir / "masks/p.mask.png");
    CHECK_FALSE(masks.find(dir / "p-3.png"));
    CHECK_FALSE(masks.find(dir / "p-2-3.png"));
  }
}

TEST_CASE("the same name in another folder goes before one that only begins alike",
          "[job][partners]") {
  const TempDir dir;
  put_files(dir, {"maps/p.classes.png", "other/p.classes.png", "other/p.classes.figure.png",
                  "samples/p.samples.geojson", "samples/p-2.samples.geojson"});
  const auto input = dir / "maps/p.classes.png";
  CHECK(PartnerFiles(dir / "other", is_any).of(input) == dir / "other/p.classes.png");
  CHECK(PartnerFiles(dir / "samples", is_any).of(input) == dir / "samples/p.samples.geojson");
  put_files(dir, {"samples/p.spots.geojson"});
  CHECK_THROWS_WITH(PartnerFiles(dir / "samples", is_any).of(input),
                    Catch::Contains("p.samples.geojson and ") &&
                        Catch::Contains("p.spots.geojson go with its name; say which with a "
                                        "pattern, as \"" +
                                        (dir / "samples/*.samples.geojson").string()));
}

TEST_CASE("what is called the thing that is sought goes before the picture of that name",
          "[job][partners]") {
  const TempDir dir;
  put_files(dir, {"all/p.png", "all/p.reference.png", "all/p.classes.png", "all/p.samples.geojson",
                  "all/p-2.png", "maps/p-2.classes.png"});
  const PartnerFiles references(dir / "all", is_any, "reference");
  CHECK(references.of(dir / "all/p.classes.png") == dir / "all/p.reference.png");
  // The longest name is still meant.
  CHECK(references.of(dir / "maps/p-2.classes.png") == dir / "all/p-2.png");
  put_files(dir, {"all/p.reference.tif"});
  CHECK_THROWS_WITH(PartnerFiles(dir / "all", is_any, "reference").of(dir / "all/p.classes.png"),
                    Catch::Contains("p.reference.png and ") &&
                        Catch::Contains("p.reference.tif go with its name"));
}

TEST_CASE("a pattern says which files are meant", "[job][partners]") {
  const TempDir dir;
  put_files(dir, {"all/p.png", "all/p.truth.png", "all/p-2.truth.png", "all/p.classes.png",
                  "all/p.truth.txt", "all/.truth.png"});
  const PartnerFiles truths(dir / "all/*.truth.png", is_picture_name);
  CHECK(truths.of(dir / "all/p.classes.png") == dir / "all/p.truth.png");
  CHECK(truths.of(dir / "maps/p-2.png") == dir / "all/p-2.truth.png");
  CHECK(PartnerFiles(dir / "all/*", is_picture_name).of(dir / "p.map.png") == dir / "all/p.png");
  CHECK_THROWS_WITH(PartnerFiles(dir / "all/*.trueth.png", is_picture_name),
                    Catch::Contains("all/*.trueth.png: no file fits this pattern"));
  CHECK_THROWS_WITH(PartnerFiles(dir / "none/*.png", is_picture_name),
                    Catch::Contains("none: the folder cannot be read"));
  CHECK_THROWS_WITH(PartnerFiles(dir / "none/", is_picture_name),
                    Catch::Contains("none/: the folder cannot be read"));
  CHECK_NOTHROW(require_one_each("--image", dir / "none/", 3));
  // A file whose name holds a star is that file.
  put_files(dir, {"all/*.odd.png"});
  CHECK(PartnerFiles(dir / "all/*.odd.png", is_any).of("x.png") == dir / "all/*.odd.png");
}

TEST_CASE("what a pattern has before its star belongs to the name, or does not",
          "[job][partners]") {
  const TempDir dir;
  put_files(dir, {"all/pane-a.truth.png", "all/pane-b.truth.png", "all/old_c.png", "all/pp.png",
                  "all/ppp.png"});
  const PartnerFiles panes(dir / "all/pane-*.truth.png", is_picture_name);
  CHECK(panes.of(dir / "pane-a.png") == dir / "all/pane-a.truth.png");
  CHECK(panes.of(dir / "maps/pane-b.classes.png") == dir / "all/pane-b.truth.png");
  CHECK(panes.of(dir / "a.png") == dir / "all/pane-a.truth.png");
  CHECK_FALSE(panes.find(dir / "pane-c.png"));
  CHECK(PartnerFiles(dir / "all/old_*", is_picture_name).of(dir / "c.png") ==
        dir / "all/old_c.png");
  // The whole name is surer than what is behind the first part.
  const PartnerFiles both(dir / "all/p*.png", is_picture_name);
  CHECK(both.of(dir / "pp.png") == dir / "all/pp.png");
  CHECK(both.of(dir / "p.png") == dir / "all/pp.png");
}

TEST_CASE("one file goes with one input", "[job][partners]") {
  const TempDir dir;
  put_files(dir, {"p.png"});
  CHECK_THROWS_WITH(PartnerFiles(dir / "q.png", is_any),
                    Catch::EndsWith("q.png: no such file; check its name and folder"));
  CHECK(PartnerFiles(dir / "p.png", is_any).of("whatever.png") == dir / "p.png");
  CHECK_NOTHROW(require_one_each("--image", dir / "p.png", 1));
  CHECK_NOTHROW(require_one_each("--image", dir.path(), 3));
  CHECK_NOTHROW(require_one_each("--image", dir / "*.png", 3));
  CHECK_THROWS_WITH(require_one_each("--image", dir / "p.png", 3),
                    Catch::Contains("--image: one file does not go with 3 inputs"));
}
