#include "job/spot/spots_report.h"

#include <optional>
#include <string>

#include "io/text/csv.h"

namespace chalcedony {
namespace {

Color lab_color(const SpotColor& spot) { return {&spaces::kLab, spot.lab}; }

CsvField field(const std::optional<double>& value) { return value ? CsvField(*value) : CsvField(); }

std::vector<std::string> header_of(const std::vector<Channel>& channels, bool is_held,
                                   bool has_steady) {
  std::vector<std::string> header{"spot",  "color", "pixels", "full_scale_percent",
                                  "lab_l", "lab_a", "lab_b",  "chroma",
                                  "hue",   "spread"};
  for (const Channel& channel : channels)
    for (const char* figure : {"_mean", "_median", "_spread"})
      header.push_back(channel.name() + figure);
  if (is_held)
    for (const char* column : {"delta_e", "delta_l", "delta_a", "delta_b", "delta_c", "change"})
      header.emplace_back(column);
  if (has_steady) header.emplace_back("beyond_steady");
  return header;
}

void add_change(const HeldSpot& spot, bool has_steady, std::vector<CsvField>& row) {
  if (spot.change) {
    const ColorChange& c = *spot.change;
    for (const double value : {c.delta_e, c.lightness, c.a, c.b, c.chroma}) row.emplace_back(value);
    row.emplace_back(change_words(c));
  } else {
    row.resize(row.size() + 6);
  }
  if (!has_steady) return;
  row.push_back(spot.beyond_steady ? CsvField(*spot.beyond_steady ? "yes" : "no") : CsvField());
}

Json json_of(const ColorChange& change) {
  return {{"delta_e", change.delta_e}, {"delta_l", change.lightness},
          {"delta_a", change.a},       {"delta_b", change.b},
          {"delta_c", change.chroma},  {"words", change_words(change)}};
}

Json channels_json(const SpotColor& spot, const std::vector<Channel>& channels) {
  Json list = Json::array();
  for (std::size_t c = 0; c < channels.size(); ++c) {
    Json one{{"channel", channels[c].name()}, {"unit", channels[c].unit_name()}};
    const auto& [mean, median, spread] = spot.channels[c];
    if (mean) one["mean"] = *mean;
    if (median) one["median"] = *median;
    if (spread) one["standard_deviation"] = *spread;
    list.push_back(std::move(one));
  }
  return list;
}

}  // namespace

void write_spots(const std::filesystem::path& path, const HeldSpots& held,
                 const std::vector<Channel>& channels, bool is_held, bool has_steady) {
  CsvTable table(header_of(channels, is_held, has_steady));
  for (const HeldSpot& spot : held.spots) {
    const SpotColor& color = spot.color;
    const auto [l, c, h] = lab_color(color).in(spaces::kLch);
    std::vector<CsvField> row{color.name,   color.css,    color.pixels, color.full_percent,
                              color.lab[0], color.lab[1], color.lab[2], c};
    row.push_back(lab_color(color).has_hue() ? CsvField(h) : CsvField());
    row.emplace_back(color.spread);
    for (const ChannelFigures& figures : color.channels)
      for (const auto& value : {figures.mean, figures.median, figures.spread})
        row.push_back(field(value));
    if (is_held) add_change(spot, has_steady, row);
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
    if (!channels.empty()) one["channels"] = channels_json(color, channels);
    if (spot.change) one["change"] = json_of(*spot.change);
    if (spot.beyond_steady) one["beyond_steady"] = *spot.beyond_steady;
    json["spots"].push_back(std::move(one));
  }
  if (held.steady) json["steady"] = *held.steady;
}

}  // namespace chalcedony
