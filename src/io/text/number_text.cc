#include "io/text/number_text.h"

#include <charconv>
#include <cmath>

namespace chalcedony {
namespace {

template <class Real>
std::string shortest(Real value) {
  if (!std::isfinite(value)) return "";
  char text[64];
  const auto result = std::to_chars(text, text + sizeof text, value);
  return std::string(text, result.ptr);
}

}  // namespace

std::string number_text(double value) { return shortest(value); }
std::string number_text(float value) { return shortest(value); }

std::string rounded_text(double value, int digits) {
  constexpr double kMostWritten = 1e15;  // a double is exact to the last digit up to there
  const double size = std::abs(value);
  const bool all_before_point = size >= std::pow(10.0, digits) - 0.5 && size < kMostWritten;
  char text[64];
  const auto result =
      all_before_point
          ? std::to_chars(text, text + sizeof text, value, std::chars_format::fixed, 0)
          : std::to_chars(text, text + sizeof text, value, std::chars_format::general, digits);
  return std::string(text, result.ptr);
}

std::string fixed_text(double value, int decimals) {
  char digits[400];  // the largest double has 309 before the point
  const auto result =
      std::to_chars(digits, digits + sizeof digits, value, std::chars_format::fixed, decimals);
  const std::string text(digits, result.ptr);
  const bool zero = text.find_first_not_of("-0.") == std::string::npos;
  return zero && text.front() == '-' ? text.substr(1) : text;
}

std::string percent_text(double percent) {
  const long tenths = std::lround(10 * percent);
  return std::to_string(tenths / 10) + "." + std::to_string(tenths % 10) + " %";
}

}  // namespace chalcedony
