#include "io/document/palette_file.h"

#include <cctype>
#include <cmath>
#include <nlohmann/json.hpp>
#include <sstream>

#include "core/error.h"
#include "io/file/whole_file.h"
#include "io/text/csv.h"
#include "io/text/file_kind.h"
#include "io/text/json_text.h"
#include "io/text/number_text.h"

namespace chalcedony {
namespace {

using Json = nlohmann::ordered_json;

std::uint64_t whole(double pixels) { return static_cast<std::uint64_t>(std::llround(pixels)); }

Json color_json(const Palette& palette, std::size_t i) {
  const PaletteColor& one = palette[i];
  const auto [lightness, chroma, hue] = one.color().in(spaces::kLch);
  Json json{{"index", i + 1},
            {"color", css_hex(one.color())},
            {"name", one.name},
            {"pixels", whole(one.look.pixels)},
            {"percent", one.percent},
            {"oklab", one.look.oklab},
            {"lightness", lightness},
            {"chroma", chroma},
            {"hue", one.color().has_hue() ? Json(hue) : Json()},
            {"spread", one.look.spread},
            {"percentile_95", one.look.far_spread},
            {"typical", css_hex(one.typical())},
            {"contrast_black", one.contrast_black},
            {"contrast_white", one.contrast_white}};
  if (one.look.nearest != i) {
    json["nearest"] = one.look.nearest + 1;
    json["nearest_delta_e"] = one.look.nearest_distance;
  }
  return json;
}

[[noreturn]] void reject_palette(const std::string& problem) {
  throw InputError(problem,
                   "give a palette.json written by 'chalcedony palette', or a text with one CSS "
                   "color a line");
}

std::vector<Color> colors_of(const Json& json) {
  if (!is_of_kind(json, "palette")) reject_palette("is not a palette");
  if (json.at("version").get<int>() > kPaletteVersion)
    throw InputError("is a palette of version " + std::to_string(json.at("version").get<int>()) +
                         ", this program reads up to " + std::to_string(kPaletteVersion),
                     "use the newer program that wrote it");
  std::vector<Color> colors;
  for (const Json& one : json.at("colors"))
    colors.push_back(css_color(one.at("color").get<std::string>()));
  return colors;
}

std::vector<Color> colors_in_lines(std::string_view text) {
  std::vector<Color> colors;
  std::istringstream lines{std::string(text)};
  for (std::string line; std::getline(lines, line);) {
    const auto first = line.find_first_not_of(" \t\r"), last = line.find_last_not_of(" \t\r;");
    if (first != std::string::npos && last >= first)
      colors.push_back(css_color(std::string_view(line).substr(first, last - first + 1)));
  }
  return colors;
}

/// A stem as part of a CSS name: small letters and digits, all else a hyphen.
std::string css_name(std::string_view stem) {
  std::string name;
  for (const char c : stem) {
    const auto byte = static_cast<unsigned char>(c);
    name += std::isalnum(byte) ? static_cast<char>(std::tolower(byte)) : '-';
  }
  return name;
}

}  // namespace

Json palette_json(const Palette& palette) {
  Json colors = Json::array();
  for (std::size_t i = 0; i < palette.size(); ++i) colors.push_back(color_json(palette, i));
  return colors;
}

std::string palette_text(const Palette& palette, std::string_view name) {
  const Json json{{"chalcedony", "palette"},
                  {"version", kPaletteVersion},
                  {"picture", name},
                  {"colors", palette_json(palette)}};
  return json_text(json, 2) + "\n";
}

std::vector<Color> parse_palette_colors(std::string_view text) {
  std::vector<Color> colors;
  try {
    const auto first = text.find_first_not_of(" \t\r\n");
    const bool is_json = first != std::string_view::npos && text[first] == '{';
    // A picture, most likely: its bytes are not to be quoted.
    if (text.find('\0') != std::string_view::npos) reject_palette("is not a palette, nor any text");
    colors = is_json ? colors_of(Json::parse(text)) : colors_in_lines(text);
  } catch (const Json::exception&) {
    reject_palette("is not a palette, or a damaged one");
  } catch (const UsageError& error) {
    throw InputError("is not a palette: " + error.problem(), error.remedy());
  }
  if (colors.empty()) reject_palette("holds no color");
  if (colors.size() > kMostPaletteColors) reject_palette("holds more than 255 colors");
  return colors;
}

std::vector<Color> read_palette_colors(const std::filesystem::path& path) {
  const std::string text = read_text_file(path);
  return errors_at(path.string(), [&] { return parse_palette_colors(text); });
}

void write_palette_table(const std::filesystem::path& path, const Palette& palette) {
  CsvTable table({"index", "color", "name", "pixels", "share_percent", "lightness", "chroma", "hue",
                  "oklab_l", "oklab_a", "oklab_b", "spread_delta_e", "percentile_95_delta_e",
                  "typical", "nearest", "nearest_delta_e", "contrast_black", "contrast_white"});
  for (std::size_t i = 0; i < palette.size(); ++i) {
    const PaletteColor& one = palette[i];
    const auto [lightness, chroma, hue] = one.color().in(spaces::kLch);
    const bool alone = one.look.nearest == i;
    table.add({std::uint64_t{i + 1}, css_hex(one.color()), one.name, whole(one.look.pixels),
               one.percent, lightness, chroma, one.color().has_hue() ? CsvField(hue) : CsvField(),
               one.look.oklab[0], one.look.oklab[1], one.look.oklab[2], one.look.spread,
               one.look.far_spread, css_hex(one.typical()),
               alone ? CsvField() : CsvField(std::uint64_t{one.look.nearest + 1}),
               alone ? CsvField() : CsvField(one.look.nearest_distance), one.contrast_black,
               one.contrast_white});
  }
  table.write(path);
}

void write_contrasts(const std::filesystem::path& path, const Palette& palette) {
  std::vector<std::string> header{"index", "color", "black", "white"};
  for (std::size_t i = 1; i <= palette.size(); ++i) header.push_back(std::to_string(i));
  CsvTable table(header);
  for (std::size_t i = 0; i < palette.size(); ++i) {
    std::vector<CsvField> row{std::uint64_t{i + 1}, css_hex(palette[i].color()),
                              palette[i].contrast_black, palette[i].contrast_white};
    for (std::size_t other = 0; other < palette.size(); ++other)
      row.emplace_back(contrast_within(palette, i, other));
    table.add(row);
  }
  table.write(path);
}

void write_differences(const std::filesystem::path& path, const Palette& palette,
                       const std::vector<SeenPair>& pairs) {
  std::vector<std::string> header{"first", "first_color", "second", "second_color", "delta_e"};
  for (const ColorVision vision : kVisionDeficiencies)
    header.push_back(std::string(name_of(vision)) + "_delta_e");
  CsvTable table(header);
  for (const SeenPair& pair : pairs) {
    std::vector<CsvField> row{std::uint64_t{pair.first + 1}, css_hex(palette[pair.first].color()),
                              std::uint64_t{pair.second + 1},
                              css_hex(palette[pair.second].color())};
    for (const double distance : pair.distance) row.emplace_back(distance);
    table.add(row);
  }
  table.write(path);
}

std::string palette_css(const Palette& palette, std::string_view stem) {
  std::string text = ":root {\n";
  for (std::size_t i = 0; i < palette.size(); ++i) {
    const std::string name = "  --" + css_name(stem) + "-" + std::to_string(i + 1);
    text += name + ": " + css_hex(palette[i].color()) + "; /* " + palette[i].name + ", " +
            percent_text(palette[i].percent) + " */\n";
    text += name + "-text: " + (palette[i].takes_black() ? "#000000" : "#ffffff") + ";\n";
  }
  return text + "}\n";
}

}  // namespace chalcedony
