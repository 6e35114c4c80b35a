// The picture that a result is called after.
#include "job/run/picture_of_result.h"

#include <catch2/catch.hpp>

using namespace chalcedony;

TEST_CASE("a result is of the picture whose name it begins with", "[job]") {
  const std::vector<std::filesystem::path> pictures{"in/pane.png", "in/pane-2.png", "b.classes.png",
                                                    "other/pane.png"};
  const PicturesByName by_name(pictures);
  const auto check = [&](const char* result, const char* picture, std::size_t named) {
    INFO(result);
    const PictureOfResult found = by_name.of(result);
    REQUIRE(found.picture);
    CHECK(*found.picture == picture);
    CHECK(found.named == named);
  };
  check("out/pane.mask.png", "in/pane.png", 4);
  check("out/pane-lab.tif", "in/pane.png", 4);
  // The longest, and the first of two that are called the same.
  check("out/pane-2.mask.figure.png", "in/pane-2.png", 6);
  check("out/b.classes.regions.csv", "b.classes.png", 9);
  check("out/b.errors.png", "b.classes.png", 1);
  for (const char* result : {"panel.mask.png", "mask.figure.png", "pane"}) {
    INFO(result);
    CHECK_FALSE(by_name.of(result).picture);
  }
}
