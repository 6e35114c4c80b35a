// Names without regard to upper and lower case; ASCII letters only, as all names here are.
#ifndef CHALCEDONY_CORE_LETTER_CASE_H_
#define CHALCEDONY_CORE_LETTER_CASE_H_

#include <algorithm>
#include <cctype>
#include <string>
#include <string_view>

namespace chalcedony {

inline char lower_case(char c) {
  return static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
}

inline std::string lower_case(std::string_view text) {
  std::string out(text);
  for (char& c : out) c = lower_case(c);
  return out;
}

/// Whether two names differ in case at most.
inline bool same_letters(std::string_view a, std::string_view b) {
  return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                    [](char x, char y) { return lower_case(x) == lower_case(y); });
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LETTER_CASE_H_
