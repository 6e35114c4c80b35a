#include "io/text/csv.h"

#include <catch2/catch.hpp>
#include <fstream>
#include <string>
#include <vector>

#include "core/error.h"
#include "tests/support/temp_dir.h"

using chalcedony::CsvTable;
using chalcedony::InputError;
using chalcedony::read_csv;

using Rows = std::vector<std::vector<std::string>>;

namespace {

Rows rows_of(const std::string& text) {
  const chalcedony::test::TempDir dir;
  std::ofstream(dir / "table.csv", std::ios::binary) << text;
  return read_csv(dir / "table.csv");
}

}  // namespace

TEST_CASE("a table is read as it was written", "[io]") {
  const chalcedony::test::TempDir dir;
  const Rows rows{{"name", "said; of it"},
                  {"a,b", "1,5"},
                  {"say \"no\"", "two\r\nlines"},
                  {" spaces ", ""},
                  {"tab\t", "-0.25"}};
  CsvTable table(rows[0]);
  for (std::size_t r = 1; r < rows.size(); ++r) table.add({rows[r][0], rows[r][1]});
  table.write(dir / "table.csv");
  CHECK(read_csv(dir / "table.csv") == rows);
}

TEST_CASE("tables that a spreadsheet saved are read", "[io]") {
  const Rows rows{{"name", "lab.l", "lab.a"}, {"dark red", "41.5", "-0.25"}, {"1,5 m", "40", ""}};
  CHECK(rows_of("\xEF\xBB\xBFname,lab.l,lab.a\r\ndark red,41.5,-0.25\r\n\"1,5 m\",40,\r\n") ==
        rows);
  CHECK(rows_of("\xEF\xBB\xBFname;lab.l;lab.a\r\ndark red;41,5;-0,25\r\n1,5 m;40;\r\n;;\r\n") ==
        rows);
  CHECK(rows_of("name\tlab.l\tlab.a\ndark red\t41,5\t-0.25\n1,5 m\t40\t") == rows);
  CHECK(rows_of("\nname, lab.l, lab.a\ndark red,  41.5 ,-0.25\n\n \"1,5 m\" ,40 ,\n\n") == rows);
}

TEST_CASE("only numbers lose their comma, and only where commas do not separate", "[io]") {
  CHECK(rows_of("a;b\n1,5;1,5,2\n\"1,5\";1,x\n") ==
        Rows{{"a", "b"}, {"1.5", "1,5,2"}, {"1,5", "1,x"}});
  // Semicolons and tabs within fields do not make them the separator.
  CHECK(rows_of("\"a;b\",c;d\n\"1,5\",x;y\n") == Rows{{"a;b", "c;d"}, {"1,5", "x;y"}});
}

TEST_CASE("quotes within a field that is not quoted lose nothing of it", "[io]") {
  CHECK(rows_of("a,b\n5\" x 4\",c\n") == Rows{{"a", "b"}, {"5 x 4", "c"}});
  CHECK(rows_of("a,b\n\"x\"\"\",\"\"\"\"\n") == Rows{{"a", "b"}, {"x\"", "\""}});
}

TEST_CASE("a field that is quoted and empty is a field", "[io]") {
  CHECK(rows_of("a,b\nc,\"\"") == Rows{{"a", "b"}, {"c", ""}});
  CHECK(rows_of("") == Rows{});
}

TEST_CASE("what is no table is said to be none, in its line", "[io]") {
  CHECK_THROWS_WITH(rows_of(std::string("\x89PNG\r\n\0,", 8)),
                    Catch::Contains("table.csv: is no table; give a CSV file, which is text"));
  CHECK_THROWS_WITH(rows_of("a,b\n\n1,2\n3\n"),
                    Catch::Contains("has 1 fields in line 4, 2 in its header"));
  CHECK_THROWS_WITH(rows_of("a;b\n1;\"2\n"), Catch::Contains("has a quote that does not end"));
  CHECK_THROWS_AS(rows_of("a,b\n1\n"), InputError);
}
