#include "core/color/css_color.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <cstdio>
#include <optional>
#include <vector>

#include "core/color/conversion.h"
#include "core/error.h"
#include "core/letter_case.h"
#include "core/split_list.h"

namespace chalcedony {
namespace {

[[noreturn]] void reject(std::string_view text) {
  throw UsageError("'" + std::string(text) + "' is not a color",
                   "write it as in CSS: #b5563a, rgb(181 86 58) or oklch(57% 0.12 42)");
}

std::optional<Color> hex_color(std::string_view digits) {
  if (digits.size() != 3 && digits.size() != 6) return std::nullopt;
  std::string full;
  for (char c : digits) full.append(digits.size() == 3 ? 2 : 1, c);
  unsigned value = 0;
  const auto [end, error] = std::from_chars(full.data(), full.data() + 6, value, 16);
  if (error != std::errc() || end != full.data() + 6) return std::nullopt;
  return Color{&spaces::kSrgb,
               {static_cast<double>(value >> 16), static_cast<double>(value >> 8 & 255),
                static_cast<double>(value & 255)}};
}

struct Argument {
  double number = 0;
  bool percent = false;
};

std::optional<std::vector<Argument>> arguments(std::string_view text) {
  std::vector<Argument> list;
  std::size_t i = 0;
  while (true) {
    while (i < text.size() && (text[i] == ' ' || text[i] == ',')) ++i;
    if (i == text.size()) return list;
    Argument argument;
    const char* last = text.data() + text.size();
    const auto [end, error] = std::from_chars(text.data() + i, last, argument.number);
    if (error != std::errc()) return std::nullopt;
    i = static_cast<std::size_t>(end - text.data());
    if (text.substr(i).starts_with("deg")) i += 3;
    if (i < text.size() && text[i] == '%') argument.percent = true, ++i;
    list.push_back(argument);
  }
}

/// What 100 % means for a channel of a CSS function: the reference ranges of CSS Color 4.
double percent_of(const Space& space, std::size_t channel) {
  if (space.id == "lab" && channel > 0) return 125;
  return space.channels[channel].high;
}

}  // namespace

std::array<double, 3> Color::in(const Space& other) const {
  return convert_color(*space, other, value);
}

bool Color::has_hue() const {
  const auto [r, g, b] = in(spaces::kSrgb);
  return std::max({r, g, b}) - std::min({r, g, b}) > 0.001;
}

Color css_color(std::string_view text) {
  const std::string lower = lower_case(without_outer_spaces(text));
  if (lower.starts_with('#')) {
    if (auto color = hex_color(std::string_view(lower).substr(1))) return *color;
    reject(text);
  }
  const std::size_t open = lower.find('(');
  if (open == std::string::npos || !lower.ends_with(')')) reject(text);
  std::string function = lower.substr(0, open);
  std::string inside = lower.substr(open + 1, lower.size() - open - 2);
  const bool general = function == "color";
  if (general) {
    const std::size_t name_end = inside.find(' ');
    if (name_end == std::string::npos) reject(text);
    function = inside.substr(0, name_end);
    inside.erase(0, name_end);
  } else if (function == "rgb") {
    function = "srgb";
  }
  constexpr std::array<std::string_view, 7> kFunctions{"srgb", "hsl",   "hwb",  "lab",
                                                       "lch",  "oklab", "oklch"};
  const bool known =
      general || std::find(kFunctions.begin(), kFunctions.end(), function) != kFunctions.end();
  const Space* space = known ? find_space(function) : nullptr;
  const auto list = arguments(inside);
  if (!space || space->internal || space->channel_count != 3 || !list || list->size() != 3)
    reject(text);
  Color color{space, {}};
  for (std::size_t c = 0; c < 3; ++c) {
    const Argument& a = (*list)[c];
    const double per_unit = general && space->is_rgb ? 255 : 1;
    color.value[c] = a.percent ? a.number / 100 * percent_of(*space, c) : a.number * per_unit;
  }
  return color;
}

std::vector<Color> css_colors(const std::vector<std::string>& texts) {
  std::vector<Color> colors;
  for (const std::string& text : texts) colors.push_back(css_color(text));
  return colors;
}

std::string css_hex(const Color& color) {
  const auto rgb = color.in(spaces::kSrgb);
  std::array<int, 3> code{};
  for (std::size_t c = 0; c < 3; ++c)
    code[c] = static_cast<int>(std::lround(std::clamp(rgb[c], 0.0, 255.0)));
  char text[8];
  std::snprintf(text, sizeof text, "#%02x%02x%02x", static_cast<unsigned>(code[0]) & 255u,
                static_cast<unsigned>(code[1]) & 255u, static_cast<unsigned>(code[2]) & 255u);
  return text;
}

}  // namespace chalcedony
