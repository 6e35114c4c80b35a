// Which class of a map is which of the reference, in one map and in several.
#include "core/assess/class_matching.h"

#include <catch2/catch.hpp>

using namespace chalcedony;

namespace {

LabelledClasses classes_of(std::vector<LabelledClass> list, bool named = true) {
  return {std::move(list), named};
}

}  // namespace

TEST_CASE("classes are matched by name, by pairs, by number", "[core][assess]") {
  const auto map = classes_of({{1, "Ruby"}, {2, "lead"}, {3, "dust"}});
  const auto reference = classes_of({{1, "lead"}, {2, "ruby"}, {5, "moss"}});
  const ClassMatching named = match_classes(map, reference, {});
  CHECK(named.by == MatchedBy::kName);
  CHECK(named.names == std::vector<std::string>{"Ruby", "lead", "dust", "moss"});
  CHECK(named.of_reference.at(2) == 0);
  CHECK(named.of_reference.at(1) == 1);
  CHECK(named.only_in_map == std::vector<std::string>{"dust"});
  CHECK(named.only_in_reference == std::vector<std::string>{"moss"});

  // Two classes of the map may be one of the reference.
  const ClassMatching paired = match_classes(map, reference, {{"dust", "lead"}});
  CHECK(paired.by == MatchedBy::kPairs);
  CHECK(paired.of_map.at(3) == paired.of_map.at(2));
  CHECK(paired.only_in_map.empty());

  const auto numbers = classes_of({{1, "class 1"}, {5, "class 5"}}, false);
  const ClassMatching numbered = match_classes(numbers, reference, {});
  CHECK(numbered.by == MatchedBy::kNumber);
  CHECK(numbered.names == std::vector<std::string>{"lead", "moss", "ruby"});

  CHECK_THROWS_WITH(match_classes(classes_of({{9, "a"}}), reference, {}),
                    Catch::Contains("no class in common") && Catch::Contains("--match"));
  CHECK_THROWS_WITH(match_classes(map, reference, {{"rubi", "ruby"}}),
                    Catch::Contains("the map has no class 'rubi'") && Catch::Contains("Ruby"));
  CHECK_THROWS_WITH(match_classes(map, reference, {{"ruby", "rust"}}),
                    Catch::Contains("the reference has no class 'rust'"));
}

TEST_CASE("several maps have one list of classes", "[core][assess]") {
  const auto reference = classes_of({{1, "lead"}, {2, "ruby"}});
  std::vector<ClassMatching> each{
      match_classes(classes_of({{1, "ruby"}, {2, "dust"}}), reference, {}),
      match_classes(classes_of({{7, "moss"}, {8, "Lead"}, {9, "RUBY"}}),
                    classes_of({{4, "dust"}, {5, "ruby"}}), {})};
  const ClassMatching all = put_on_one_list(each);
  CHECK(all.names == std::vector<std::string>{"ruby", "dust", "lead", "moss"});
  CHECK(each[0].names == all.names);
  CHECK(each[1].names == all.names);
  CHECK(each[0].row_of(2) == 1);
  CHECK(each[0].column_of(1) == 2);
  CHECK(each[1].row_of(7) == 3);
  CHECK(each[1].row_of(8) == 2);
  CHECK(each[1].row_of(9) == 0);
  CHECK(each[1].row_of(0) == 4);
  CHECK(each[1].column_of(4) == 1);
  CHECK(all.row_name(4) == "unclassified");
  // Dust of the first map meets a reference of the second only; moss meets none.
  CHECK(all.only_in_map == std::vector<std::string>{"moss"});
  CHECK(all.only_in_reference.empty());
  CHECK(each[0].only_in_map == std::vector<std::string>{"dust"});
}

TEST_CASE("maps without names have the numbers of all of them", "[core][assess]") {
  LabelledClasses first = classes_of({{1, "class 1"}, {4, "class 4"}}, false);
  LabelledClasses second = classes_of({{2, "class 2"}}, false);
  LabelledClasses named = classes_of({{9, "moss"}});
  share_numbers({&first, &named, &second});
  for (const LabelledClasses* one : {&first, &second}) {
    REQUIRE(one->classes.size() == 3);
    CHECK(one->classes[1].code == 2);
    CHECK(one->classes[1].name == "class 2");
  }
  CHECK(named.classes.size() == 1);
}

TEST_CASE("a pair is there when both its classes are", "[core][assess]") {
  const auto map = classes_of({{1, "Ruby"}}), reference = classes_of({{1, "rust"}});
  CHECK(has_pair(map, reference, {"ruby", "Rust"}));
  CHECK_FALSE(has_pair(map, reference, {"rust", "rust"}));
  CHECK_FALSE(has_pair(map, reference, {"ruby", "ruby"}));
}
