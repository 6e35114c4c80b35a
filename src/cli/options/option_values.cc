#include "cli/options/option_values.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <charconv>

#include "core/color/css_color.h"
#include "core/nearest_name.h"
#include "core/read_number.h"
#include "job/run/partner_files.h"

namespace chalcedony::cli {

std::optional<std::filesystem::path> file_for_each(const po::variables_map& given, const char* name,
                                                   const SharedOptions& shared) {
  if (!given.count(name)) return std::nullopt;
  const std::filesystem::path named = given[name].as<std::string>();
  require_one_each(std::string("--") + name, named, shared.inputs.size());
  return named;
}

std::string text_of(const po::variables_map& given, const char* name,
                    const std::string& otherwise) {
  return given.count(name) ? given[name].as<std::string>() : otherwise;
}

std::vector<std::string> texts_of(const po::variables_map& given, const char* name) {
  return given.count(name) ? given[name].as<std::vector<std::string>>()
                           : std::vector<std::string>{};
}

Channel channel_option(const std::string& option, const std::string& text,
                       const SharedOptions& shared) {
  return read_option(option, [&] { return channel_named(text, shared.names); });
}

std::vector<Channel> channels_option(const std::string& option, const std::string& text,
                                     const SharedOptions& shared) {
  return read_option(option, [&] { return channels_named(text, shared.names); });
}

std::vector<Channel> channels_or_space(const po::variables_map& given, const std::string& name,
                                       const SharedOptions& shared, const std::string& usual) {
  if (given.count(name)) return channels_option("--" + name, given[name].as<std::string>(), shared);
  if (shared.names.bare_space) return channels_of(*shared.names.bare_space);
  return usual.empty() ? std::vector<Channel>{} : channels_option("--" + name, usual, shared);
}

PatchLayout layout_option(const std::string& text) {
  constexpr std::uint64_t kMost = 40;  // columns or rows
  const auto by = text.find('x'), is = text.find('=');
  if (by == text.npos || is == text.npos || by > is)
    throw UsageError("--layout: '" + text + "' does not say columns, rows and a rectangle",
                     "write it as in 6x4=10,10,600,400");
  const auto number = [&](const std::string& digits) {
    return static_cast<std::uint32_t>(whole_number("--layout", digits, 1, kMost));
  };
  PatchLayout layout{number(text.substr(0, by)), number(text.substr(by + 1, is - by - 1)), {}};
  const std::string place = text.substr(is + 1);
  read_option("--layout", [&] {
    if (place.find(' ') == place.npos) {
      layout.place = parse_region(place);
    } else {
      layout.place = parse_corners(place);
    }
  });
  return layout;
}

void declare_pixel_size(po::options_description& options) {
  add_option<std::string>(options, "pixel-size", "SIZE",
                          "the side of a pixel with its unit, as 0.05mm: areas and lengths are "
                          "in that unit");
}

PixelSize pixel_size_option(const po::variables_map& given) {
  PixelSize size;
  if (!given.count("pixel-size")) return size;
  const auto text = given["pixel-size"].as<std::string>();
  const std::size_t end = std::min(text.size(), text.find_first_not_of("0123456789."));
  size.side = number_in("--pixel-size", text.substr(0, end), {0, 1e9});
  size.unit = text.substr(std::min(text.size(), text.find_first_not_of(' ', end)));
  const bool letters = std::all_of(size.unit.begin(), size.unit.end(), [](char c) {
    return std::isalpha(static_cast<unsigned char>(c)) || (static_cast<unsigned char>(c) & 0x80);
  });
  if (size.unit.empty() || !letters)
    throw UsageError("--pixel-size: '" + text + "' has no unit", "write it as in 0.05mm");
  return size;
}

std::string css_color_option(const std::string& option, const std::string& text) {
  return read_option(option, [&] { return css_hex(css_color(text)); });
}

std::pair<std::int64_t, std::int64_t> point_in(const std::string& option, const std::string& text) {
  std::int64_t x = 0, y = 0;
  const char* const last = text.data() + text.size();
  const auto first = std::from_chars(text.data(), last, x);
  if (first.ec == std::errc() && first.ptr != last && *first.ptr == ',') {
    const auto second = std::from_chars(first.ptr + 1, last, y);
    if (second.ec == std::errc() && second.ptr == last) return {x, y};
  }
  throw UsageError(option + ": '" + text + "' is not a pixel", "write x,y with whole numbers");
}

FeatureScaling scaling_option(const po::variables_map& given) {
  if (!given.count("scaling")) return FeatureScaling::kBySpreadWhenUnitsDiffer;
  return choice_of<FeatureScaling>("--scaling", given["scaling"].as<std::string>(),
                                   {{"none", FeatureScaling::kNone},
                                    {"spread", FeatureScaling::kSpread},
                                    {"range", FeatureScaling::kRange}});
}

const Space& space_option(const std::string& option, const std::string& text) {
  return *read_option(option, [&] { return &space_named(text); });
}

const Space& three_channel_space(const std::string& option, const std::string& text) {
  const Space* const space = &space_option(option, text);
  if (space->channel_count != 3)
    throw UsageError(
        option + ": '" + std::string(space->id) + "' has one channel, and three are needed",
        "use a space such as oklab or srgb");
  return *space;
}

std::uint64_t whole_number(const std::string& option, const std::string& text, std::uint64_t low,
                           std::uint64_t high) {
  const auto value = read_number<std::uint64_t>(text);
  if (!value || *value < low || *value > high)
    throw UsageError(option + ": '" + text + "' is not a whole number from " + std::to_string(low) +
                         (high == UINT64_MAX ? " up" : " to " + std::to_string(high)),
                     "correct it");
  return *value;
}

std::uint32_t view_option(const po::variables_map& given, std::uint32_t usual) {
  constexpr std::uint32_t kLeast = 100, kMost = 4000;
  if (!given.count("view")) return usual;
  return static_cast<std::uint32_t>(
      whole_number("--view", given["view"].as<std::string>(), kLeast, kMost));
}

double number_in(const std::string& option, const std::string& text, const NumberRange& range) {
  const auto value = read_number<double>(text);
  if (!value || !(range.with_low ? *value >= range.low : *value > range.low) ||
      !(range.with_high ? *value <= range.high : *value < range.high))
    throw UsageError(fmt::format("{}: '{}' is not a number {} {:g} and {} {:g}", option, text,
                                 range.with_low ? "of at least" : "above", range.low,
                                 range.with_high ? "at most" : "below", range.high),
                     "give one that is");
  return *value;
}

std::optional<SampleType> depth_option(const po::variables_map& given) {
  if (!given.count("depth")) return std::nullopt;
  return choice_of<SampleType>(
      "--depth", given["depth"].as<std::string>(),
      {{"8", SampleType::kU8}, {"16", SampleType::kU16}, {"float", SampleType::kF32}});
}

std::pair<std::string, std::string> named_value(const std::string& option,
                                                const std::string& text) {
  const std::size_t at = text.find('=');
  if (at == std::string::npos || at == 0 || at + 1 == text.size())
    throw UsageError(option + ": '" + text + "' is not NAME=VALUE",
                     "as in " + option + " ruby=...");
  return {text.substr(0, at), text.substr(at + 1)};
}

std::string one_of(const std::string& option, const std::string& text,
                   const std::vector<std::string>& known) {
  if (std::find(known.begin(), known.end(), text) == known.end())
    throw UsageError(option + ": '" + text + "' is not known", suggest_name(text, known));
  return text;
}

}  // namespace chalcedony::cli
