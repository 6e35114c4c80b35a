#include "io/document/truth_table.h"

#include <catch2/catch.hpp>

#include "core/error.h"
#include "tests/support/temp_dir.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;

TEST_CASE("tables of true classes come back as they were written", "[io][truth]") {
  const TempDir dir;
  const TruthTable table{
      TruthDrawn::kStratified,
      {{3, 0, Label{2}, "ruby"}, {4000000000u, 7, Label{0}, ""}, {1, 2, {}, "a,b"}}};
  write_truth_table(dir / "a.truth.csv", table);
  CHECK(text_of_file(dir / "a.truth.csv") ==
        "number,x,y,drawn,stratum,class\r\n1,3,0,stratified,2,ruby\r\n"
        "2,4000000000,7,stratified,0,\r\n3,1,2,stratified,,\"a,b\"\r\n");
  const TruthTable back = read_truth_table(dir / "a.truth.csv");
  CHECK(back.drawn == TruthDrawn::kStratified);
  REQUIRE(back.pixels.size() == 3);
  CHECK(back.pixels[0].stratum == Label{2});
  CHECK(back.pixels[1].x == 4000000000u);
  CHECK(back.pixels[1].name.empty());
  CHECK_FALSE(back.pixels[2].stratum);
  CHECK(back.pixels[2].name == "a,b");
  CHECK(is_truth_table_name("out/a.classes.truth.csv"));
  CHECK_FALSE(is_truth_table_name("out/areas.csv"));
}

TEST_CASE("a table of pixels somebody made has its columns in any order", "[io][truth]") {
  const TempDir dir;
  put_text(dir / "mine.csv", "class;note;y;x\nrock;at the edge;1;2\nmoss;;0;5\n");
  const TruthTable table = read_truth_table(dir / "mine.csv");
  CHECK(table.drawn == TruthDrawn::kByHand);
  REQUIRE(table.pixels.size() == 2);
  CHECK(table.pixels[0].x == 2);
  CHECK(table.pixels[0].y == 1);
  CHECK(table.pixels[1].name == "moss");
}

TEST_CASE("a table that is none of pixels says what is wrong", "[io][truth]") {
  const TempDir dir;
  const auto says = [&](const char* text, const std::string& message) {
    put_text(dir / "t.csv", text);
    CHECK_THROWS_MATCHES(read_truth_table(dir / "t.csv"), InputError,
                         Catch::Message((dir / "t.csv").string() + ": " + message));
  };
  says("", "is no table of pixels; it is empty");
  says("x,y,class\n", "is no table of pixels; it is empty");
  says("x,class\n1,a\n", "has no column y; give a table of pixels with the columns x, y and class");
  says("x,y,class\n1,2,a\n1.5,2,b\n", "has '1.5' as x in row 3; write a whole number");
  says("x,y,class,stratum\n1,2,a,-1\n", "has '-1' as stratum in row 2; write a whole number");
  says("x,y,class\n1,2,a\n1,2,b\n", "has the pixel 1,2 twice; leave one of its rows out");
  says("x,y,drawn,class\n1,2,some,a\n",
       "has 'some' as drawn in row 2; leave the column as it was written");
  says("x,y,drawn,class\n1,2,random,a\n1,3,grid,a\n",
       "holds pixels that were drawn in different ways; give those of one drawing");
}
