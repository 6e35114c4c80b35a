// Suggested samples whose guesses a person has checked.
#ifndef CHALCEDONY_CORE_LEARN_CHECKED_GUESSES_H_
#define CHALCEDONY_CORE_LEARN_CHECKED_GUESSES_H_

#include <cstddef>
#include <map>
#include <string>
#include <string_view>

#include "core/learn/sample_shape.h"

namespace chalcedony {

/// Whether the class of a sample is a guess: a question mark ends it.
inline bool is_guess(std::string_view name) { return name.ends_with('?'); }

struct CheckedGuesses {
  bool all = false;  // guesses that are not named here are right
  // By the number of the sample, from 1 on in the order of its file; empty: its guess is right.
  std::map<std::size_t, std::string> classes;
};

/// Reads "1,3,8=corrosion", or "all,8=corrosion" where the other guesses are right.
///
/// Errors    UsageError for anything else, or a number that is there twice
CheckedGuesses parse_checked_guesses(std::string_view text);

/// The samples by the classes that were found right or named; guesses that were not checked are
/// left out. A class that was named has no color of the guess.
///
/// Errors    InputError when there is no sample of a number, or a sample without a guess is given
///           no class
SampleSet checked_samples(const SampleSet& samples, const CheckedGuesses& checked);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_CHECKED_GUESSES_H_
