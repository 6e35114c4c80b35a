// Everything that reads what people or other programs wrote.
#ifndef CHALCEDONY_TESTS_FUZZ_PARSERS_H_
#define CHALCEDONY_TESTS_FUZZ_PARSERS_H_

#include <functional>
#include <string>
#include <vector>

namespace chalcedony::test {

struct Parser {
  std::string name;
  std::vector<std::string> seeds;  // what it reads without an error
  /// Reads `bytes`, as far as the program would before its work begins.
  ///
  /// Errors    an Error that says what is wrong; nothing else, whatever the bytes are
  std::function<void(const std::string& bytes)> read;
};

const std::vector<Parser>& all_parsers();

/// Null when there is none of this name.
const Parser* find_parser(const std::string& name);

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_FUZZ_PARSERS_H_
