#include "tests/fuzz/damage.h"

#include <algorithm>
#include <array>
#include <string_view>

namespace chalcedony::test {
namespace {

/// What is a value of another kind, out of range, or a word of our languages where it means
/// nothing.
constexpr std::array<std::string_view, 24> kWords{
    "-1",   "0",   "1e999", "nan",     "99999999999999999999",
    "null", "[]",  "{}",    "\"\"",    ",",
    ";",    "\"x", "..",    "(",       ")",
    "/0",   "\n",  "\r",    "%",       "#",
    "$",    "and", "in ",   "\xff\xfe"};

std::size_t below(std::size_t n, std::mt19937& random) { return random() % n; }

void change_once(std::string& bytes, std::mt19937& random) {
  const std::size_t at = below(bytes.size(), random);
  const std::size_t length = 1 + below(std::min<std::size_t>(bytes.size() - at, 8), random);
  switch (below(6, random)) {
    case 0:
      bytes[at] = static_cast<char>(bytes[at] ^ (1 << below(8, random)));
      break;
    case 1:
      bytes[at] = static_cast<char>(std::array{0, 1, 0x7f, 0x80, 0xff}[below(5, random)]);
      break;
    case 2:
      bytes.erase(at, length);
      break;
    case 3:
      bytes.insert(at, bytes.substr(below(bytes.size(), random), length));
      break;
    case 4:
      bytes.replace(at, length, kWords[below(kWords.size(), random)]);
      break;
    default:
      bytes.resize(at);
  }
}

}  // namespace

std::string damaged(std::string bytes, std::mt19937& random) {
  for (std::size_t changes = 1 + below(3, random); changes > 0 && !bytes.empty(); --changes)
    change_once(bytes, random);
  return bytes;
}

}  // namespace chalcedony::test
