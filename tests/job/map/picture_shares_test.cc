// What classes take of several pictures together.
#include "job/map/picture_shares.h"

#include <catch2/catch.hpp>

using namespace chalcedony;

namespace {

Json mapped_picture(const char* file, std::uint64_t first, std::uint64_t second,
                    std::uint64_t unclassified) {
  const std::uint64_t counted = first + second + unclassified;
  return {{"file", file},
          {"counted", counted},
          {"unclassified", unclassified},
          {"unit", "mm"},
          {"classes", Json::array({Json{{"index", 1},
                                        {"name", "lead"},
                                        {"color", "#111111"},
                                        {"pixels", first},
                                        {"percent", percent(first, counted)},
                                        {"area", 0.25 * static_cast<double>(first)}},
                                   Json{{"index", 2},
                                        {"name", "ruby"},
                                        {"color", "#aa0000"},
                                        {"pixels", second},
                                        {"percent", percent(second, counted)},
                                        {"area", 0.25 * static_cast<double>(second)}}})}};
}

}  // namespace

TEST_CASE("shares of all pictures are of all their pixels, with the lowest and highest", "[job]") {
  const Json pictures =
      Json::array({mapped_picture("a.png", 10, 80, 10), mapped_picture("b.png", 100, 200, 100),
                   mapped_picture("c.png", 50, 50, 0)});
  const Json all = class_shares_of_all(pictures);
  CHECK(all["pictures"] == 3);
  CHECK(all["counted"] == 600);
  CHECK(all["unclassified"] == 110);
  CHECK(all["unclassified_percent"].get<double>() == Approx(100.0 * 110 / 600));
  CHECK(all["unit"] == "mm");
  const Json& lead = all["classes"][0];
  CHECK(lead["index"] == 1);
  CHECK(lead["name"] == "lead");
  CHECK(lead["color"] == "#111111");
  CHECK(lead["pixels"] == 160);
  CHECK(lead["percent"].get<double>() == Approx(100.0 * 160 / 600));
  CHECK(lead["area"] == 40);
  CHECK(lead["lowest_percent"] == 10);
  CHECK(lead["lowest_file"] == "a.png");
  CHECK(lead["highest_percent"] == 50);
  CHECK(lead["highest_file"] == "c.png");
  // Of those that are alike the first.
  CHECK(all["classes"][1]["lowest_file"] == "b.png");
}

TEST_CASE("pictures with other classes have no shares together, and one alone has none", "[job]") {
  const Json a = mapped_picture("a.png", 1, 2, 3);
  Json other = mapped_picture("b.png", 1, 2, 3), fewer = other, table = other;
  other["classes"][1]["name"] = "cobalt";
  fewer["classes"].erase(1);
  table["classes"] = Json::array();
  CHECK(class_shares_of_all(Json::array({a})).is_null());
  CHECK(class_shares_of_all(Json::array({a, other})).is_null());
  CHECK(class_shares_of_all(Json::array({a, fewer})).is_null());
  CHECK(class_shares_of_all(Json::array({a, table})).is_null());
  CHECK(class_shares_of_all(Json::array({table, a, a}))["pictures"] == 2);
}

TEST_CASE("what is selected in all pictures", "[job]") {
  const auto picture = [](const char* file, std::uint64_t selected) {
    return Json{{"file", file},
                {"counted", 200},
                {"selected", selected},
                {"selected_percent", percent(selected, 200)}};
  };
  const Json all =
      selected_shares_of_all(Json::array({picture("a", 20), picture("b", 0), picture("c", 40)}));
  CHECK(all["counted"] == 600);
  CHECK(all["selected"] == 60);
  CHECK(all["selected_percent"] == 10);
  CHECK(all["lowest_percent"] == 0);
  CHECK(all["lowest_file"] == "b");
  CHECK(all["highest_percent"] == 20);
  CHECK(all["highest_file"] == "c");
  CHECK(selected_shares_of_all(Json::array({picture("a", 20)})).is_null());
}
