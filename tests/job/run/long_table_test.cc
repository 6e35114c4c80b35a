// Tables of all pictures, put together from those of each.
#include "job/run/long_table.h"

#include <catch2/catch.hpp>
#include <string>
#include <vector>

#include "core/error.h"
#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// Two pictures whose tables hold this.
std::vector<PictureResults> results(const TempDir& dir, const std::string& thing,
                                    const std::string& a, const std::string& b) {
  std::vector<PictureResults> pictures;
  for (const auto& [name, text] : {std::pair{"a", a}, {"b.c", b}}) {
    const auto stem = dir / name;
    const auto file = dir / (std::string(name) + "." + thing);
    put_text(file, text);
    pictures.push_back({std::string("in/") + name + ".png", stem, {file}});
  }
  return pictures;
}

std::vector<std::string> warnings;
void warn(const std::string& line) { warnings.push_back(line); }

}  // namespace

TEST_CASE("rows stand below each other with their picture", "[job][tables]") {
  const TempDir dir;
  const auto pictures = results(dir, "areas.csv", "class,pixels\r\nruby,3\r\nlead,4\r\n",
                                "class,pixels\r\n\"a \"\"b\"\",\r\nc\",5\r\n");
  const auto written = write_long_tables(pictures, dir.path(), warn);
  REQUIRE(written == std::vector<std::filesystem::path>{dir / "areas.csv"});
  CHECK(text_of_file(dir / "areas.csv") ==
        "picture,class,pixels\r\nin/a.png,ruby,3\r\nin/a.png,lead,4\r\n"
        "in/b.c.png,\"a \"\"b\"\",\r\nc\",5\r\n");
}

TEST_CASE("a table that names its picture is taken as it is", "[job][tables]") {
  const TempDir dir;
  const auto pictures =
      results(dir, "cube.csv", "picture,bin\r\na,1\r\n", "picture,bin\r\nb,2\r\n");
  write_long_tables(pictures, dir.path(), warn);
  CHECK(text_of_file(dir / "cube.csv") == "picture,bin\r\na,1\r\nb,2\r\n");
}

TEST_CASE("a name that needs quotes gets them, and other columns are left out", "[job][tables]") {
  const TempDir dir;
  auto pictures = results(dir, "x.csv", "n\r\n1\r\n", "m\r\n2\r\n");
  pictures[0].input = "in, out.png";
  warnings.clear();
  write_long_tables(pictures, dir.path(), warn);
  CHECK(text_of_file(dir / "x.csv") == "picture,n\r\n\"in, out.png\",1\r\n");
  REQUIRE(warnings.size() == 1);
  CHECK_THAT(warnings[0], Catch::Contains("b.c.x.csv: has other columns than the first"));
}

TEST_CASE("tables of colors are added up", "[job][tables]") {
  const TempDir dir;
  const std::string header = "srgb.r,srgb.g,srgb.b,pixels\r\n";
  const auto pictures = results(dir, "colors.csv", header + "1,2,3,4\r\n9,9,9,1\r\n",
                                header + "0,255,0,6\r\n1,2,3,10\r\n");
  write_long_tables(pictures, dir.path(), warn);
  CHECK(text_of_file(dir / "colors.csv") == header + "0,255,0,6\r\n1,2,3,14\r\n9,9,9,1\r\n");
  const auto other = results(dir, "colors.csv", header + "1,2,3,4\r\n",
                             "display-p3.r,display-p3.g,display-p3.b,pixels\r\n1,2,3,4\r\n");
  CHECK_THROWS_WITH(write_long_tables(other, dir.path(), warn),
                    Catch::Contains("holds colors of display-p3, and"));
}

TEST_CASE("places to sample are put in the order in which to check them", "[job][tables]") {
  const TempDir dir;
  const std::string header = "number,x,y,side,guess,color,pixels,percent\r\n";
  // The gray of b.c stands for that of a, which is nearly its own.
  const auto pictures =
      results(dir, "suggested.csv",
              header + "1,5,5,3,ruby,#a01c2e,50,5\r\n2,9,5,3,\"lead, old\",#808080,30,3\r\n",
              header + "1,7.5,5,3,,#848484,40,4\r\n");
  write_long_tables(pictures, dir.path(), warn);
  CHECK(text_of_file(dir / "suggested.csv") ==
        "check,like,pixels_in_all,picture,number,x,y,side,guess,color,pixels,percent\r\n"
        "1,,70,in/b.c.png,1,7.5,5,3,,#848484,40,4\r\n"
        ",1,,in/a.png,2,9,5,3,\"lead, old\",#808080,30,3\r\n"
        "2,,50,in/a.png,1,5,5,3,ruby,#a01c2e,50,5\r\n");
  std::filesystem::remove(dir / "suggested.csv");
  const auto others = results(dir, "suggested.csv", header, "number,x\r\n1,5\r\n");
  CHECK_THROWS_WITH(write_long_tables(others, dir.path(), warn),
                    Catch::Contains("b.c.suggested.csv: is no table of suggested samples; let "
                                    "classify --suggest write it again"));
  for (const char* row : {"1,5,5,3,ruby,#a01c2e,many,5\r\n", "1,5,5,3,ruby,reddish,50,5\r\n"}) {
    const auto broken = results(dir, "suggested.csv", header, header + row);
    CHECK_THROWS_WITH(write_long_tables(broken, dir.path(), warn),
                      Catch::Contains("holds a place whose color or pixels cannot be read"));
  }
  CHECK_FALSE(std::filesystem::exists(dir / "suggested.csv"));
}

TEST_CASE("files that are no tables of a picture are left alone", "[job][tables]") {
  const TempDir dir;
  put_text(dir / "a.mask.png", "x");
  put_text(dir / "abc.csv", "n\r\n1\r\n");
  const std::vector<PictureResults> pictures{
      {"a.png", dir / "a", {dir / "a.mask.png", dir / "abc.csv"}}};
  CHECK(write_long_tables(pictures, dir.path(), warn).empty());
}
