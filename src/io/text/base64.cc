#include "io/text/base64.h"

#include <cstddef>
#include <cstdint>

namespace chalcedony {

std::string base64(std::string_view bytes) {
  constexpr char kDigits[] = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
  const auto byte = [&](std::size_t i) -> std::uint32_t {
    return i < bytes.size() ? static_cast<unsigned char>(bytes[i]) : 0;
  };
  std::string text;
  text.reserve((bytes.size() + 2) / 3 * 4);
  for (std::size_t i = 0; i < bytes.size(); i += 3) {
    const std::uint32_t three = byte(i) << 16 | byte(i + 1) << 8 | byte(i + 2);
    for (const int shift : {18, 12, 6, 0}) text += kDigits[three >> shift & 63];
  }
  for (std::size_t missing = (3 - bytes.size() % 3) % 3; missing > 0; --missing)
    text[text.size() - missing] = '=';
  return text;
}

}  // namespace chalcedony
