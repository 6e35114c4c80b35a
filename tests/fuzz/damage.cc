#include "tests/fuzz/damage.h"

#include <zlib.h>

#include <array>
#include <cstdint>
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

std::uint32_t big_endian(const std::string& bytes, std::size_t at) {
  std::uint32_t value = 0;
  for (std::size_t i = 0; i < 4; ++i)
    value = value << 8 | static_cast<unsigned char>(bytes[at + i]);
  return value;
}

}  // namespace

std::string damaged(std::string bytes, std::mt19937& random) {
  for (std::size_t changes = 1 + below(3, random); changes > 0 && !bytes.empty(); --changes)
    change_once(bytes, random);
  return bytes;
}

std::string with_check_sums(std::string bytes) {
  constexpr std::string_view kPng{"\x89PNG\r\n\x1a\n"};
  constexpr std::size_t kAround = 12;  // length, type and check sum of a chunk
  if (!bytes.starts_with(kPng)) return bytes;
  for (std::size_t at = kPng.size(); at + kAround <= bytes.size();) {
    const std::size_t length = big_endian(bytes, at);
    if (length > bytes.size() - at - kAround) break;
    const auto* type = reinterpret_cast<const Bytef*>(bytes.data()) + at + 4;
    const auto sum = ::crc32(0, type, static_cast<uInt>(4 + length));
    for (std::size_t i = 0; i < 4; ++i)
      bytes[at + 8 + length + i] = static_cast<char>(sum >> (24 - 8 * i));
    at += kAround + length;
  }
  return bytes;
}

}  // namespace chalcedony::test
