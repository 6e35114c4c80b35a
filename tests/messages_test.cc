// Every message of an error or a warning has a test that looks for it.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cctype>
#include <filesystem>
#include <regex>
#include <string>
#include <vector>

#include "tests/support/temp_dir.h"

using chalcedony::test::text_of_file;

namespace {

/// The beginnings of what no test can bring about: what happens between two looks at a file, on a
/// disk that fails, to a folder that may not be read (tests may run as root), or to more than a
/// test should hold.
const std::vector<std::string> kOutOfReach{
    "cannot be opened",           // a file that is gone once its first bytes were read
    "cannot be encoded as WebP",  // what is too large is refused before
    "cannot be copied",           // of a shard, onto a full disk
    "cannot be made",             // a temporary folder
    "make room on the disk",
    "the folder cannot be read",
    "there are more sample colors than are held",
    "there are more than",  // classes than 16 bits number
    "has too few sample pixels beside",
    "holds no pixels"  // decoders see it before
};

using Texts = std::vector<std::string>;

/// The text literals of the first argument with any, from `at` on, where a bracket is open; those
/// side by side are one.
Texts literals_of_problem(const std::string& code, std::size_t at) {
  Texts literals;
  bool joined = false;
  for (int depth = 1; at < code.size() && depth > 0; ++at) {
    if (code[at] == '(') ++depth;
    if (code[at] == ')') --depth;
    if (code[at] == ',' && depth == 1 && !literals.empty()) break;
    if (code[at] != '"') {
      if (!std::isspace(static_cast<unsigned char>(code[at]))) joined = false;
      continue;
    }
    if (!joined) literals.emplace_back();
    while (code[++at] != '"') {
      if (code[at] == '\\') literals.back() += code[at++];
      literals.back() += code[at];
    }
    joined = true;
  }
  return literals;
}

std::string trimmed(const std::string& text) {
  constexpr const char* kAround = " ,;:'()";
  const auto first = text.find_first_not_of(kAround), last = text.find_last_not_of(kAround);
  return first == text.npos ? "" : text.substr(first, last + 1 - first);
}

/// The parts of a message that stay the same whatever it is about.
Texts fixed_parts(const Texts& literals) {
  constexpr std::size_t kTelling = 8;
  static const std::regex place(R"(\{[^}]*\})");
  Texts parts;
  for (const std::string& literal : literals)
    for (std::sregex_token_iterator part(literal.begin(), literal.end(), place, -1), end;
         part != end; ++part)
      if (trimmed(*part).size() >= kTelling) parts.push_back(trimmed(*part));
  return parts;
}

/// All text literals of the tests, each on a line of its own.
std::string texts_of_tests() {
  std::string texts;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(CHALCEDONY_TESTS)) {
    const std::string extension = entry.path().extension().string();
    if (entry.path() == std::filesystem::path(__FILE__) ||
        (extension != ".cc" && extension != ".h"))
      continue;
    const std::string code = text_of_file(entry.path());
    static const std::regex joint("\"\\s*\\n\\s*\"");
    texts += std::regex_replace(code, joint, "") + "\n";
  }
  return texts;
}

bool stands_in(const std::string& part, const std::string& texts) {
  constexpr std::size_t kBeginning = 28;
  return texts.find(part.substr(0, kBeginning)) != std::string::npos;
}

}  // namespace

TEST_CASE("every message of an error or a warning has a test", "[messages]") {
  const std::string texts = texts_of_tests();
  static const std::regex said(

      R"((throw (Input|Usage|Output)Error|\breject_\w+|\brefuse|\bfail|\bwarn|warnings\.\w+_back)\()");
  std::size_t messages = 0;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(CHALCEDONY_SOURCE)) {
    if (entry.path().extension() != ".cc") continue;
    const std::string code = text_of_file(entry.path());
    for (std::sregex_iterator found(code.begin(), code.end(), said), end; found != end; ++found) {
      const auto after = static_cast<std::size_t>(found->position() + found->length());
      const Texts parts = fixed_parts(literals_of_problem(code, after));
      if (parts.empty()) continue;
      const std::string& longest =
          *std::max_element(parts.begin(), parts.end(),
                            [](const auto& a, const auto& b) { return a.size() < b.size(); });
      ++messages;
      const auto is_known = [&](const std::string& part) {
        return stands_in(part, texts) ||
               std::any_of(kOutOfReach.begin(), kOutOfReach.end(),
                           [&](const std::string& known) { return part.starts_with(known); });
      };
      INFO(entry.path() << ": " << longest);
      CHECK(is_known(longest));
    }
  }
  CHECK(messages > 300);
}
