#include "io/text/printable_text.h"

#include <boost/locale/utf.hpp>

namespace chalcedony {
namespace {

using Utf8 = boost::locale::utf::utf_traits<char>;
using boost::locale::utf::code_point;

bool is_control(code_point point) { return point < 0x20 || (point >= 0x7f && point < 0xa0); }

void append_escaped(std::string& out, std::string_view bytes) {
  constexpr char kDigits[] = "0123456789abcdef";
  for (const char c : bytes) {
    const auto byte = static_cast<unsigned char>(c);
    out += {'\\', 'x', kDigits[byte >> 4], kDigits[byte & 15]};
  }
}

}  // namespace

std::string printable(std::string_view text) {
  std::string out;
  out.reserve(text.size());
  while (!text.empty()) {
    const char* end = text.data();
    const code_point point = Utf8::decode(end, text.data() + text.size());
    // Of what is no UTF-8 the first byte alone is known to be wrong.
    const bool is_text = boost::locale::utf::is_valid_codepoint(point);
    const std::string_view character =
        text.substr(0, is_text ? static_cast<std::size_t>(end - text.data()) : 1);
    if (is_text && !is_control(point)) {
      out += character;
    } else {
      append_escaped(out, character);
    }
    text.remove_prefix(character.size());
  }
  return out;
}

}  // namespace chalcedony
