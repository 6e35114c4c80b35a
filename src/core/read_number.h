// Numbers that people and files write.
#ifndef CHALCEDONY_CORE_READ_NUMBER_H_
#define CHALCEDONY_CORE_READ_NUMBER_H_

#include <charconv>
#include <optional>
#include <string_view>
#include <system_error>

namespace chalcedony {

/// The number that a text is, whole, and nothing else; none for any other text, and for a number
/// that the type does not hold. The decimal point is a point wherever the program runs.
template <class Number>
std::optional<Number> read_number(std::string_view text) {
  Number number{};
  const char* const end = text.data() + text.size();
  const auto [stop, error] = std::from_chars(text.data(), end, number);
  if (error != std::errc() || stop != end) return std::nullopt;
  return number;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_READ_NUMBER_H_
