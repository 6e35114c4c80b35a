// Values of a summary as they stand in a format string: fmt::format("{:.1f} %", json["percent"]).
#ifndef CHALCEDONY_CLI_TEXT_JSON_FORMAT_H_
#define CHALCEDONY_CLI_TEXT_JSON_FORMAT_H_

#include <fmt/format.h>

#include <cstdint>
#include <string>
#include <string_view>

#include "job/run/summary.h"

/// Words are written as they are, without quotes, and numbers by what follows the colon: a whole
/// number that asks for decimals (`{:.1f}`, `{:.4g}`) is written as a real one.
///
/// Errors    fmt::format_error for a list, an object and null
template <>
struct fmt::formatter<chalcedony::Json> {
  constexpr const char* parse(fmt::format_parse_context& context) {
    const char* end = context.begin();
    while (end != context.end() && *end != '}') ++end;
    spec_ = {context.begin(), static_cast<std::size_t>(end - context.begin())};
    return end;
  }

  template <class Context>
  auto format(const chalcedony::Json& value, Context& context) const {
    if (value.is_string())
      return written(std::string_view(value.get_ref<const std::string&>()), context);
    if (!value.is_number()) throw fmt::format_error("neither words nor a number");
    if (value.is_number_float() || wants_decimals()) return written(value.get<double>(), context);
    return value.is_number_unsigned() ? written(value.get<std::uint64_t>(), context)
                                      : written(value.get<std::int64_t>(), context);
  }

 private:
  bool wants_decimals() const {
    return !spec_.empty() && std::string_view("efg").find(spec_.back()) != std::string_view::npos;
  }

  template <class Value, class Context>
  auto written(const Value& value, Context& context) const {
    return fmt::format_to(context.out(), fmt::runtime("{:" + std::string(spec_) + "}"), value);
  }

  std::string_view spec_;
};

#endif  // CHALCEDONY_CLI_TEXT_JSON_FORMAT_H_
