#include "job/change/time_names.h"

#include <catch2/catch.hpp>

using namespace chalcedony;

namespace {

using Names = std::vector<std::string>;

}  // namespace

TEST_CASE("times are called by their folders, by how names end, or by their numbers",
          "[job][changes]") {
  CHECK(time_names({{"1911/a.png", "1911/b.png"}, {"1954/a.png", "1954/b.png"}}) ==
        Names{"1911", "1954"});
  CHECK(time_names({{"survey/1911/maps/a.png"}, {"survey/1954/maps/a.png"}}) ==
        Names{"1911", "1954"});
  CHECK(time_names({{"/old/a.png"}, {"/data/new/a.png"}}) == Names{"old", "data/new"});
  // A folder below the other has no name of its own beside it.
  CHECK(time_names({{"maps/a.png"}, {"maps/later/a.png"}}) == Names{"maps", "maps/later"});
  CHECK(time_names({{"a.1911.png", "b.1911.png"}, {"a.1954.png", "b.1954.png"}}) ==
        Names{"1911", "1954"});
  CHECK(time_names({{"plot-1-spring.png"}, {"plot-1-autumn.png"}}) == Names{"spring", "autumn"});
  CHECK(time_names({{"x/a-1.png", "y/a-2.png"}, {"later/a-1.png", "later/a-2.png"}}) ==
        Names{"time 1", "time 2"});
  CHECK(time_names({{"a.png"}, {"b.png"}}) == Names{"time 1", "time 2"});
}
