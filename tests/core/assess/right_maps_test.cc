#include "core/assess/right_maps.h"

#include <catch2/catch.hpp>

#include "core/assess/matched_labels.h"

using namespace chalcedony;

TEST_CASE("which of several maps are right", "[core][assess]") {
  CHECK(right_maps(true, 1, 1) == RightMaps::kAll);
  CHECK(right_maps(true, 0, 1) == RightMaps::kOnlyFirst);
  CHECK(right_maps(false, 1, 1) == RightMaps::kOnlyOthers);
  CHECK(right_maps(false, 0, 1) == RightMaps::kNone);
  CHECK(right_maps(true, 3, 3) == RightMaps::kAll);
  CHECK(right_maps(true, 1, 3) == RightMaps::kFirstAndSome);
  CHECK(right_maps(false, 3, 3) == RightMaps::kOnlyOthers);
}

TEST_CASE("classes looked up by label are those of the matching", "[core][assess]") {
  const ClassMatching matching = match_classes({{{4, "ruby"}, {9, "lead"}, {500, "moss"}}},
                                               {{{1, "lead"}, {2, "RUBY"}, {3, "sky"}}}, {});
  const MatchedLabels labels(matching);
  for (const auto& [code, place] : matching.of_map)
    CHECK(labels.row(static_cast<Label>(code)) == place + 1);
  for (const auto& [code, place] : matching.of_reference)
    CHECK(labels.column(static_cast<Label>(code)) == place + 1);
  CHECK(labels.row(0) == labels.unclassified());
  CHECK(labels.unclassified() == matching.names.size() + 1);
  CHECK(labels.is_right(4, 2));
  CHECK(labels.is_right(9, 1));
  CHECK_FALSE(labels.is_right(4, 1));
  CHECK_FALSE(labels.is_right(500, 3));
  CHECK_FALSE(labels.is_right(0, 3));
}
