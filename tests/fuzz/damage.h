// Bytes that are nearly right.
#ifndef CHALCEDONY_TESTS_FUZZ_DAMAGE_H_
#define CHALCEDONY_TESTS_FUZZ_DAMAGE_H_

#include <random>
#include <string>

namespace chalcedony::test {

/// A few changes somewhere in `bytes`: bits turned over, bytes and numbers of text made another,
/// parts left out, doubled or put in. The same generator gives the same bytes.
std::string damaged(std::string bytes, std::mt19937& random);

/// A PNG with the check sums that its chunks should have, so that a reader looks at what is in
/// them; anything else as it is.
std::string with_check_sums(std::string bytes);

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_FUZZ_DAMAGE_H_
