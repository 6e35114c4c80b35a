#include "core/select/variants.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

#include "core/error.h"
#include "core/read_number.h"

namespace chalcedony {
namespace {

constexpr const char* kRightWay = "write it as in low=180..220/5: five values, both ends included";

double number_of(std::string_view text, std::string_view whole) {
  const auto value = read_number<double>(text);
  if (!value || !std::isfinite(*value))
    throw UsageError("'" + std::string(whole) + "' has no number at '" + std::string(text) + "'",
                     kRightWay);
  return *value;
}

/// Ten digits hide what steps leave in the last ones.
std::string text_of(double value) {
  std::array<char, 32> digits{};
  const auto end =
      std::to_chars(digits.data(), digits.data() + digits.size(), std::round(value * 1e9) / 1e9)
          .ptr;
  return {digits.data(), end};
}

/// The names between braces.
std::vector<std::string> names_in(std::string_view text) {
  std::vector<std::string> names;
  for (std::size_t open = text.find('{'); open != std::string_view::npos;
       open = text.find('{', open + 1)) {
    const std::size_t close = text.find('}', open);
    if (close == std::string_view::npos)
      throw UsageError("a brace is open in the selection", "write variables as in {low}");
    names.emplace_back(text.substr(open + 1, close - open - 1));
  }
  return names;
}

void check_names(const std::vector<std::string>& used, const std::vector<Variable>& variables) {
  for (std::size_t v = 0; v < variables.size(); ++v) {
    const std::string& name = variables[v].name;
    for (std::size_t other = 0; other < v; ++other)
      if (variables[other].name == name)
        throw UsageError("'" + name + "' is varied twice", "give each variable once");
    if (std::find(used.begin(), used.end(), name) == used.end())
      throw UsageError("'" + name + "' is varied, but the selection has no {" + name + "}",
                       "put it where the number is to vary");
  }
  for (const std::string& name : used)
    if (std::none_of(variables.begin(), variables.end(),
                     [&](const Variable& v) { return v.name == name; }))
      throw UsageError("the selection has {" + name + "}, which does not vary",
                       "say what it takes, as in --vary " + name + "=10..50/5");
}

std::string filled_in(std::string text, const std::vector<Variable>& variables,
                      const std::vector<double>& values) {
  for (std::size_t v = 0; v < variables.size(); ++v) {
    const std::string place = "{" + variables[v].name + "}";
    for (std::size_t at = text.find(place); at != std::string::npos; at = text.find(place, at))
      text.replace(at, place.size(), text_of(values[v]));
  }
  return text;
}

}  // namespace

Variable parse_variable(std::string_view text) {
  const std::size_t equals = text.find('='), dots = text.find("..", equals + 1),
                    slash = text.rfind('/');
  if (equals == std::string_view::npos || equals == 0 || dots == std::string_view::npos ||
      slash == std::string_view::npos || slash < dots)
    throw UsageError("'" + std::string(text) + "' says not what varies", kRightWay);
  const double low = number_of(text.substr(equals + 1, dots - equals - 1), text),
               high = number_of(text.substr(dots + 2, slash - dots - 2), text),
               count = number_of(text.substr(slash + 1), text);
  if (count != std::floor(count) || count < 2 || count > 100)
    throw UsageError("'" + std::string(text) + "' takes no whole number of 2 to 100 values",
                     kRightWay);
  Variable variable{std::string(text.substr(0, equals)), {}};
  for (int i = 0; i < static_cast<int>(count); ++i)
    variable.values.push_back(low + (high - low) * i / (count - 1));
  return variable;
}

std::vector<Variant> variants_of(std::string_view text, const std::vector<Variable>& variables) {
  check_names(names_in(text), variables);
  std::size_t all = 1;
  for (const Variable& variable : variables) all *= variable.values.size();
  if (all > kMostVariants)
    throw UsageError("there are " + std::to_string(all) + " combinations, more than " +
                         std::to_string(kMostVariants),
                     "vary fewer values");
  std::vector<Variant> variants;
  for (std::size_t n = 0; n < all; ++n) {
    Variant& one = variants.emplace_back();
    one.values.resize(variables.size());
    std::size_t rest = n;
    for (std::size_t v = variables.size(); v-- > 0;) {
      one.values[v] = variables[v].values[rest % variables[v].values.size()];
      rest /= variables[v].values.size();
    }
    one.text = filled_in(std::string(text), variables, one.values);
  }
  return variants;
}

}  // namespace chalcedony
