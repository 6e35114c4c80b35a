#include "job/spot/spots_report.h"

#include <optional>
#include <string>

#include "io/text/csv.h"
#include "job/region/channel_figures.h"

namespace chalcedony {
namespace {

Color lab_color(const SpotColor& spot) { return {&spaces::kLab, spot.lab}; }

std::vector<std::string> header_of(const SpotColumns& columns) {
  std::vector<std::string> header{"spot",  "color", "pixels", "full_scale_percent",
                                  "lab_l", "lab_a", "lab_b",  "chroma",
                                  "hue",   "spread"};
  add_figure_columns(columns.channels, header);
  if (columns.changes)
    for (const char* column : {"delta_e", "delta_l", "delta_a", "delta_b", "delta_c", "change"})
      header.emplace_back(column);
  if (columns.steady) header.emplace_back("beyond_steady");
  if (columns.tolerance) header.emplace_back("beyond_tolerance");
  return header;
}

CsvField yes_or_no(const std::optional<bool>& is) {
  return is ? CsvField(*is ? "yes" : "no") : CsvField();
}

void add_change(const std::optional<ColorChange>& change, std::vector<CsvField>& row) {
  if (!change) return row.resize(row.size() + 6);
  for (const double value :
       {change->delta_e, change->lightness, change->a, change->b, change->chroma})
    row.emplace_back(value);
  row.emplace_back(change_words(*change));
}

Json json_of(const ColorChange& change) {
  return {{"delta_e", change.delta_e}, {"delta_l", change.lightness},
          {"delta_a", change.a},       {"delta_b", change.b},
          {"delta_c", change.chroma},  {"words", change_words(change)}};
}

}  // namespace

void write_spots(const std::filesystem::path& path, const HeldSpots& held,
                 const SpotColumns& columns) {
  CsvTable table(header_of(columns));
  for (const HeldSpot& spot : held.spots) {
    const SpotColor& color = spot.color;
    const auto [l, c, h] = lab_color(color).in(spaces::kLch);
    std::vector<CsvField> row{color.name,   color.css,    color.pixels, color.full_percent,
                              color.lab[0], color.lab[1], color.lab[2], c};
    row.push_back(lab_color(color).has_hue() ? CsvField(h) : CsvField());
    row.emplace_back(color.spread);
    add_figure_fields(color.channels, row);
    if (columns.changes) add_change(spot.change, row);
    if (columns.steady) row.push_back(yes_or_no(spot.beyond_steady));
    if (columns.tolerance) row.push_back(yes_or_no(spot.beyond_tolerance));
    table.add(row);
  }
  table.write(path);
}

void report_held(const HeldSpots& held, const std::vector<Channel>& channels, Json& json) {
  json["spots"] = Json::array();
  for (const HeldSpot& spot : held.spots) {
    const SpotColor& color = spot.color;
    const auto& [l, a, b] = color.lab;
    Json one{{"name", color.name},
             {"color", color.css},
             {"pixels", color.pixels},
             {"full_scale_percent", color.full_percent},
             {"lab", {{"l", l}, {"a", a}, {"b", b}}},
             {"spread", color.spread}};
    if (!channels.empty()) one["channels"] = figures_json(channels, color.channels);
    if (spot.change) one["change"] = json_of(*spot.change);
    if (spot.beyond_steady) one["beyond_steady"] = *spot.beyond_steady;
    if (spot.beyond_tolerance) one["beyond_tolerance"] = *spot.beyond_tolerance;
    json["spots"].push_back(std::move(one));
  }
  if (held.steady) json["steady"] = *held.steady;
}

}  // namespace chalcedony
