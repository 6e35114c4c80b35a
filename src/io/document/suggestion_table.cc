#include "io/document/suggestion_table.h"

#include "core/color/css_color.h"
#include "core/color/space.h"
#include "core/error.h"
#include "core/learn/alike_colors.h"
#include "core/read_number.h"
#include "io/text/csv.h"

namespace chalcedony {
namespace {

const std::vector<std::string> kPlaceColumns{"number", "x",     "y",      "side",
                                             "guess",  "color", "pixels", "percent"};
constexpr std::size_t kPlaceColor = 5, kPlacePixels = 6;  // places among them

/// A row of a picture's table, as it was read.
struct PlaceRow {
  std::string picture;
  std::vector<std::string> fields;
  DoubtfulColor color = {};
};

DoubtfulColor color_of(const std::vector<std::string>& fields, const std::filesystem::path& table) {
  const auto pixels = read_number<std::uint64_t>(fields[kPlacePixels]);
  try {
    if (pixels) return {css_color(fields[kPlaceColor]).in(spaces::kOklab), *pixels};
  } catch (const UsageError&) {
  }
  throw InputError("holds a place whose color or pixels cannot be read",
                   "let classify --suggest write it again", table.string());
}

void add_rows(const std::filesystem::path& picture, const std::filesystem::path& table,
              std::vector<PlaceRow>& rows) {
  auto read = read_csv(table);
  if (read.empty() || read.front() != kPlaceColumns)
    throw InputError("is no table of suggested samples", "let classify --suggest write it again",
                     table.string());
  for (std::size_t r = 1; r < read.size(); ++r) {
    const DoubtfulColor color = color_of(read[r], table);
    rows.push_back({picture.string(), std::move(read[r]), color});
  }
}

}  // namespace

void write_suggestions(const std::filesystem::path& path,
                       const std::vector<SuggestedPlace>& places) {
  CsvTable table(kPlaceColumns);
  for (const SuggestedPlace& place : places)
    table.add({place.number, place.x, place.y, place.side, place.guess, place.color, place.pixels,
               place.percent});
  table.write(path);
}

void write_suggestions_in_order(
    const std::filesystem::path& path,
    const std::vector<std::pair<std::filesystem::path, std::filesystem::path>>& tables) {
  std::vector<PlaceRow> rows;
  for (const auto& [picture, table] : tables) add_rows(picture, table, rows);
  std::vector<DoubtfulColor> colors;
  for (const PlaceRow& row : rows) colors.push_back(row.color);
  std::vector<std::string> header{"check", "like", "pixels_in_all", "picture"};
  header.insert(header.end(), kPlaceColumns.begin(), kPlaceColumns.end());
  CsvTable table(header);
  const auto add = [&](std::size_t row, CsvField check, CsvField like, CsvField pixels) {
    std::vector<CsvField> fields{std::move(check), std::move(like), std::move(pixels),
                                 rows[row].picture};
    fields.insert(fields.end(), rows[row].fields.begin(), rows[row].fields.end());
    table.add(fields);
  };
  std::uint64_t check = 0;
  for (const ColorStandIn& one : color_stand_ins(colors, colors.size(), 0)) {
    add(one.color, ++check, {}, one.pixels);
    for (const std::size_t other : one.others) add(other, {}, check, {});
  }
  table.write(path);
}

}  // namespace chalcedony
