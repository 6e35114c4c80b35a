#include "io/document/truth_table.h"

#include <algorithm>
#include <array>
#include <cstddef>
#include <initializer_list>
#include <set>
#include <utility>

#include "core/error.h"
#include "core/read_number.h"
#include "io/text/csv.h"

namespace chalcedony {
namespace {

constexpr std::array<const char*, 4> kDrawnWords{"", "random", "grid", "stratified"};

/// Where the columns are; none for those that are not there.
struct TruthColumns {
  std::optional<std::size_t> x, y, drawn, stratum, name;
};

TruthColumns truth_columns(const std::vector<std::string>& header) {
  const auto place = [&](const char* column) -> std::optional<std::size_t> {
    const auto at = std::find(header.begin(), header.end(), column);
    if (at == header.end()) return std::nullopt;
    return static_cast<std::size_t>(at - header.begin());
  };
  TruthColumns columns{place("x"), place("y"), place("drawn"), place("stratum"), place("class")};
  for (const auto& [column, name] :
       {std::pair(columns.x, "x"), std::pair(columns.y, "y"), std::pair(columns.name, "class")})
    if (!column)
      throw InputError(std::string("has no column ") + name,
                       "give a table of pixels with the columns x, y and class");
  return columns;
}

template <class Number>
Number whole(const std::string& text, std::size_t row, const char* column) {
  if (const auto number = read_number<Number>(text)) return *number;
  throw InputError("has '" + text + "' as " + column + " in row " + std::to_string(row),
                   "write a whole number");
}

TruthDrawn drawn_of(const std::string& word, std::size_t row) {
  const auto at = std::find(kDrawnWords.begin(), kDrawnWords.end(), word);
  if (at == kDrawnWords.end())
    throw InputError("has '" + word + "' as drawn in row " + std::to_string(row),
                     "leave the column as it was written");
  return static_cast<TruthDrawn>(at - kDrawnWords.begin());
}

TruthPixel truth_pixel(const std::vector<std::string>& fields, const TruthColumns& columns,
                       std::size_t row) {
  TruthPixel pixel{whole<std::uint32_t>(fields[*columns.x], row, "x"),
                   whole<std::uint32_t>(fields[*columns.y], row, "y")};
  if (columns.stratum && !fields[*columns.stratum].empty())
    pixel.stratum = whole<Label>(fields[*columns.stratum], row, "stratum");
  pixel.name = fields[*columns.name];
  return pixel;
}

}  // namespace

const char* word_of(TruthDrawn drawn) { return kDrawnWords[static_cast<std::size_t>(drawn)]; }

bool is_truth_table_name(const std::filesystem::path& file) {
  return file.filename().string().ends_with(".truth.csv");
}

void write_truth_table(const std::filesystem::path& path, const TruthTable& table) {
  CsvTable csv({"number", "x", "y", "drawn", "stratum", "class"});
  std::uint64_t number = 0;
  for (const TruthPixel& pixel : table.pixels)
    csv.add({++number, std::uint64_t{pixel.x}, std::uint64_t{pixel.y}, word_of(table.drawn),
             pixel.stratum ? CsvField(std::uint64_t{*pixel.stratum}) : CsvField(), pixel.name});
  csv.write(path);
}

TruthTable read_truth_table(const std::filesystem::path& path) {
  const auto rows = read_csv(path);
  return errors_at(path.string(), [&] {
    if (rows.size() < 2) throw InputError("is no table of pixels", "it is empty");
    const TruthColumns columns = truth_columns(rows.front());
    TruthTable table;
    std::set<std::pair<std::uint32_t, std::uint32_t>> places;
    for (std::size_t r = 1; r < rows.size(); ++r) {
      table.pixels.push_back(truth_pixel(rows[r], columns, r + 1));
      const TruthPixel& pixel = table.pixels.back();
      if (!places.emplace(pixel.x, pixel.y).second)
        throw InputError(
            "has the pixel " + std::to_string(pixel.x) + "," + std::to_string(pixel.y) + " twice",
            "leave one of its rows out");
      if (!columns.drawn) continue;
      const TruthDrawn drawn = drawn_of(rows[r][*columns.drawn], r + 1);
      if (r > 1 && drawn != table.drawn)
        throw InputError("holds pixels that were drawn in different ways",
                         "give those of one drawing");
      table.drawn = drawn;
    }
    return table;
  });
}

}  // namespace chalcedony
