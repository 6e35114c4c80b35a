#include "core/select/channel_limits.h"

#include <catch2/catch.hpp>
#include <string>

#include "core/channel/derived_channel.h"
#include "core/error.h"

using namespace chalcedony;

namespace {

/// `hsv.h 340..20, hsv.s 50..-` and so on.
std::string limits_text(const std::string& selection) {
  const DerivedChannels derived{derived_channel("warmth=lab.a + lab.b", {})};
  std::string text;
  for (const ChannelLimits& one : limits_of(parse_expression(selection, ChannelNames(derived)))) {
    const auto end = [](const std::optional<double>& value) {
      return value ? std::to_string(*value).substr(0, 5) : "-";
    };
    text +=
        (text.empty() ? "" : ", ") + one.channel.name() + " " + end(one.low) + ".." + end(one.high);
  }
  return text;
}

}  // namespace

TEST_CASE("a selection of intervals is read as limits", "[select]") {
  CHECK(limits_text("hsv.h in 340..20") == "hsv.h 340.0..20.00");
  CHECK(limits_text("hsv.h in 10..20 and (hsv.s >= 50 and warmth <= 2)") ==
        "hsv.h 10.00..20.00, hsv.s 50.00..-, warmth -..2.000");
  CHECK(limits_text("lab.a >= -12.5 and file.0 in 3..9 and lab.a <= -2") ==
        "lab.a -12.5..-2.00, file.0 3.000..9.000");
}

TEST_CASE("a selection that is more than limits is refused with the part", "[select]") {
  const auto refused = [](const std::string& selection, const std::string& part) {
    CHECK_THROWS_WITH(limits_text(selection),
                      Catch::StartsWith("'" + part + "' is not made of limits of channels alone"));
  };
  refused("hsv.s >= 3 and hsv.s > 50", "hsv.s > 50");
  refused("hsv.s >= 3 or hsv.v >= 50", "hsv.s >= 3 or hsv.v >= 50");
  refused("not hsv.s >= 3", "not hsv.s >= 3");
  refused("near(#ff0000, 3)", "near(#ff0000, 3)");
  refused("lab.a + lab.b >= 3", "lab.a + lab.b >= 3");
  refused("lab.a >= lab.b", "lab.a >= lab.b");
  refused("lab.a = 3", "lab.a = 3");
  CHECK_THROWS_WITH(limits_text("lab.a >= 3 and lab.a in 4..5"),
                    Catch::StartsWith("'lab.a in 4..5' limits lab.a once more"));
}
