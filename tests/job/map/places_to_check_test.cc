#include "job/map/places_to_check.h"

#include <catch2/catch.hpp>
#include <string>
#include <vector>

#include "tests/support/pictures.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

Json place_in(const std::string& file, const char* color, std::uint64_t pixels) {
  return {{"file", file},   {"number", 1},    {"x", 10.0},        {"y", 5.0},      {"side", 4},
          {"guess", "red"}, {"color", color}, {"pixels", pixels}, {"percent", 5.0}};
}

}  // namespace

TEST_CASE("a picture that is gone is left out of the places to check", "[job][classify]") {
  const TempDir dir;
  write_rgb(dir / "there.png", 20, 10, std::vector<std::uint8_t>(600, 90));
  const std::string there = (dir / "there.png").string(), gone = (dir / "gone.png").string();
  std::vector<std::string> warnings;
  Context context;
  context.warn = [&](const std::string& line) { warnings.push_back(line); };
  const auto drawn = [&](const Json& places, const char* name) {
    Plot plot(FigureFormat::kSvg);
    add_places_to_check(plot, dir / name, places, 2, {{"red", "#aa0000"}}, {}, context);
    plot.draw();
    return dir.files().count(name) > 0;
  };
  CHECK(drawn({place_in(gone, "#ff0000", 9), place_in(there, "#5a5a5a", 7)}, "one.svg"));
  REQUIRE(warnings.size() == 1);
  CHECK_THAT(warnings[0],
             Catch::StartsWith("a picture is left out of the figure of places to check: ") &&
                 Catch::Contains("gone.png"));
  CHECK_THAT(text_of_file(dir / "one.svg"),
             Catch::Contains("there 1  5.0 %") && !Catch::Contains("gone"));
  CHECK_FALSE(drawn(Json::array({place_in(gone, "#ff0000", 9)}), "none.svg"));
}

TEST_CASE("places stand for those of other pictures, up to so many", "[job][classify]") {
  const Json pictures{
      {{"file", "a.png"},
       {"counted", 1000},
       {"suggested", {place_in("a.png", "#ff0000", 90), place_in("a.png", "#00ff00", 80)}}},
      {{"file", "b.png"},
       {"counted", 200},
       {"suggested", Json::array({place_in("b.png", "#02fe00", 30)})}}};
  const Json all = places_to_check(pictures, 9);
  REQUIRE(all.size() == 2);
  CHECK(all[0]["file"] == "a.png");
  CHECK(all[0]["color"] == "#00ff00");
  CHECK(all[0]["pixels"] == 110);
  CHECK(all[0]["percent"].get<double>() == Approx(100 * 110 / 1200.0));
  CHECK(all[1]["pixels"] == 90);
  CHECK(places_to_check(pictures, 1).size() == 1);
  CHECK(places_to_check(Json::array(), 1).empty());
}
