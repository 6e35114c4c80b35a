// Damaged input: every parser reads it or says what is wrong, whatever the bytes are.
#include <catch2/catch.hpp>

#include "core/error.h"
#include "tests/fuzz/damage.h"
#include "tests/fuzz/parsers.h"
#include "tests/support/png_chunks.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// What is wrong with the bytes; empty when nothing is.
std::string problem_in(const Parser& parser, const std::string& bytes) {
  try {
    parser.read(bytes);
    return {};
  } catch (const Error& error) {
    return error.problem().empty() ? "an error that says nothing" : error.problem();
  }
}

}  // namespace

TEST_CASE("every parser reads what is right", "[fuzz]") {
  for (const Parser& parser : all_parsers())
    for (const std::string& seed : parser.seeds) {
      INFO(parser.name << ": " << seed);
      CHECK(problem_in(parser, seed) == "");
    }
}

TEST_CASE("every parser reads damaged input or says what is wrong", "[fuzz]") {
  constexpr int kRounds = 400;
  for (const Parser& parser : all_parsers()) {
    std::mt19937 random(1);
    int refused = 0;
    for (int round = 0; round < kRounds; ++round) {
      const std::string& seed = parser.seeds[static_cast<std::size_t>(round) % parser.seeds.size()];
      const std::string bytes = with_check_sums(damaged(seed, random));
      INFO(parser.name << ": " << bytes);
      std::string problem;
      REQUIRE_NOTHROW(problem = problem_in(parser, bytes));
      CHECK(problem != "an error that says nothing");
      refused += !problem.empty();
    }
    INFO(parser.name);
    // Exif never fails a picture.
    CHECK((refused > kRounds / 20 || parser.name == "exif"));
  }
}
