// Names in the order people expect: numbers by their value.
#ifndef CHALCEDONY_CORE_NATURAL_ORDER_H_
#define CHALCEDONY_CORE_NATURAL_ORDER_H_

#include <algorithm>
#include <cstddef>
#include <string_view>

namespace chalcedony {

/// Whether a comes before b: runs of digits are compared as numbers (pane-9 before pane-10), all
/// else byte by byte. Names that differ only in leading zeros are ordered byte by byte.
inline bool comes_before(std::string_view a, std::string_view b) {
  const auto is_digit = [](char c) { return c >= '0' && c <= '9'; };
  std::size_t i = 0, j = 0;
  while (i < a.size() && j < b.size()) {
    if (!is_digit(a[i]) || !is_digit(b[j])) {
      if (a[i] != b[j]) return static_cast<unsigned char>(a[i]) < static_cast<unsigned char>(b[j]);
      ++i, ++j;
      continue;
    }
    const auto number = [&](std::string_view text, std::size_t& at) {
      while (at < text.size() && text[at] == '0') ++at;
      const std::size_t first = at;
      while (at < text.size() && is_digit(text[at])) ++at;
      return text.substr(first, at - first);
    };
    const std::string_view left = number(a, i), right = number(b, j);
    if (left.size() != right.size()) return left.size() < right.size();
    if (left != right) return left < right;
  }
  if (a.size() - i != b.size() - j) return a.size() - i < b.size() - j;
  return a < b;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_NATURAL_ORDER_H_
