// Bytes that are nearly right.
#ifndef CHALCEDONY_TESTS_FUZZ_DAMAGE_H_
#define CHALCEDONY_TESTS_FUZZ_DAMAGE_H_

#include <random>
#include <string>

namespace chalcedony::test {

/// A few changes somewhere in `bytes`: bits turned over, bytes and numbers of text made another,
/// parts left out, doubled or put in. The same generator gives the same bytes.
std::string damaged(std::string bytes, std::mt19937& random);

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_FUZZ_DAMAGE_H_
