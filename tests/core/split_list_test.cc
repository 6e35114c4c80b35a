#include <catch2/catch.hpp>
#include <string>
#include <vector>

#include "core/split_list.h"

using namespace chalcedony;

TEST_CASE("a list is its items, without the spaces around them", "[core]") {
  using Items = std::vector<std::string>;
  CHECK(split_list("lab.l") == Items{"lab.l"});
  CHECK(split_list(" lab.l,lab.a , dark red") == Items{"lab.l", "lab.a", "dark red"});
  CHECK(split_list("a,,b,") == Items{"a", "", "b", ""});
  CHECK(split_list("") == Items{""});
  CHECK(split_list("  ") == Items{""});
  CHECK(split_list("MAP|FOLDER", '|') == Items{"MAP", "FOLDER"});
}
