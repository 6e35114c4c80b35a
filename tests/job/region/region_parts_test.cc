// The steps of tidy that part classes as it was told of them.
#include "job/region/region_parts.h"

#include <catch2/catch.hpp>

using namespace chalcedony;

namespace {

Json parts(double above, double to, bool parted = true) {
  Json json{{"regions", 5}, {"part", nullptr}, {"above", above}, {"to", to}};
  if (parted) json["part"] = middle_of({above, to, 5});
  return json;
}

Json class_of(const char* name, const Json& told) { return {{"name", name}, {"parts", told}}; }

}  // namespace

TEST_CASE("classes are parted by one step where one H does for all", "[job][measure]") {
  const Json ruby = class_of("ruby", parts(0.5, 4)), lead = class_of("lead", parts(1, 9)),
             clear = class_of("clear", parts(2, 8, false)), none{{"name", "amber"}};
  CHECK(parting_steps(Json::array({ruby})) == "part 1.4");
  CHECK(parting_steps(Json::array({ruby, none, lead})) == "part 2");
  // H lies in the range of what is not to be parted.
  CHECK(parting_steps(Json::array({ruby, clear})) == "part 2.8");
  CHECK(parting_steps(Json::array({clear})).empty());
  CHECK(parting_steps(Json::array()).empty());
}

TEST_CASE("classes are named where a step for all would part others", "[job][measure]") {
  const Json ruby = class_of("ruby", parts(0.5, 4)), lead = class_of("dark lead", parts(1, 4)),
             clear = class_of("clear", parts(5, 8, false)),
             fine = class_of("fine", parts(0.5, 0.8));
  CHECK(parting_steps(Json::array({ruby, clear, lead})) == "part 2 of ruby,dark lead");
  CHECK(parting_steps(Json::array({lead, fine})) == "part 2 of dark lead; part 0.63 of fine");
}

TEST_CASE("of several pictures H keeps to the range of each", "[job][measure]") {
  const Json both = parts_of_all({parts(0.5, 4), parts(1, 9), parts(0.7, 20, false)});
  CHECK(both["regions"] == 15);
  CHECK(both["above"] == 1);
  CHECK(both["to"] == 4);
  CHECK(both["part"] == 2);
  CHECK(parts_of_all({parts(0.5, 4), parts(6, 9)})["part"].is_null());
  CHECK(parts_of_all({parts(0.5, 4, false), parts(0.6, 9, false)})["part"].is_null());
}
