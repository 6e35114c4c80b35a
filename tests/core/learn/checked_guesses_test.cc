#include "core/learn/checked_guesses.h"

#include <catch2/catch.hpp>
#include <string>
#include <vector>

#include "core/error.h"

using namespace chalcedony;

namespace {

/// Points one below the other.
SampleSet guessed(const std::vector<std::string>& classes) {
  SampleSet samples;
  for (const std::string& name : classes) {
    const std::size_t place = samples.class_named(name);
    samples.classes[place].color = "#101010";
    samples.shapes.push_back({place, {}, {0.5, static_cast<double>(samples.shapes.size())}, 0});
  }
  return samples;
}

/// Each sample that is left: its row and its class.
std::vector<std::string> left(const SampleSet& samples, const std::string& checked) {
  const SampleSet right = checked_samples(samples, parse_checked_guesses(checked));
  std::vector<std::string> out;
  for (const SampleShape& shape : right.shapes)
    out.push_back(std::to_string(static_cast<int>(shape.point.y)) + " " +
                  right.classes[shape.sample_class].name + right.classes[shape.sample_class].color);
  return out;
}

}  // namespace

TEST_CASE("guesses that were checked lose their mark, others are left out", "[core][learn]") {
  const SampleSet samples = guessed({"ruby?", "lead?", "ruby?", "lead", "?"});
  using Left = std::vector<std::string>;
  CHECK(left(samples, "3, 1") == Left{"0 ruby#101010", "2 ruby#101010", "3 lead#101010"});
  CHECK(left(samples, "2=rust,5=ruby") == Left{"1 rust", "3 lead#101010", "4 ruby"});
  CHECK(left(samples, "all,5=glare") ==
        Left{"0 ruby#101010", "1 lead#101010", "2 ruby#101010", "3 lead#101010", "4 glare"});
  CHECK(left(samples, "4=rust,1=a=b") == Left{"0 a=b", "3 rust"});
  CHECK(is_guess("ruby?"));
  CHECK_FALSE(is_guess("ruby"));
}

TEST_CASE("checks that fit no sample are refused", "[core][learn]") {
  const SampleSet samples = guessed({"ruby?", "?"});
  CHECK_THROWS_WITH(left(samples, "3"), "there is no sample 3; its numbers go up to 2");
  CHECK_THROWS_WITH(left(samples, "2"), "sample 2 has no guess; name its class, as in 2=lead");
  CHECK_THROWS_AS(left(samples, "all"), InputError);
  CHECK(checked_samples(samples, {}).shapes.empty());
  for (const char* wrong : {"", "0", "1;2", "-1", "1=", "one", "1.5"})
    CHECK_THROWS_WITH(parse_checked_guesses(wrong),
                      Catch::Contains("is no sample that was checked"));
  CHECK_THROWS_WITH(parse_checked_guesses("1,2,1=lead"), "sample 1 is there twice; name it once");
}
