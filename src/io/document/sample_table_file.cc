#include "io/document/sample_table_file.h"

#include <algorithm>
#include <string>

#include "core/error.h"
#include "core/feature/features.h"
#include "core/read_number.h"
#include "io/text/csv.h"
#include "io/text/number_text.h"

namespace chalcedony {
namespace {

constexpr std::size_t kNamed = 3;  // columns before the features

std::vector<std::string> header_of(const std::vector<Channel>& features) {
  std::vector<std::string> header{"class", "color", "pixels"};
  for (const Feature& feature : features_of(features)) header.push_back(feature.name());
  return header;
}

template <class Number>
Number number_in(const std::string& text, const std::filesystem::path& path) {
  if (const auto number = read_number<Number>(text)) return *number;
  throw InputError("holds '" + text + "' where a number belongs", "give a table as it was written",
                   path.string());
}

void check_header(const std::vector<std::string>& found, const std::vector<Channel>& features,
                  const std::filesystem::path& path) {
  const std::vector<std::string> wanted = header_of(features);
  if (found == wanted) return;
  if (!std::equal(wanted.begin(), wanted.begin() + kNamed, found.begin(),
                  found.begin() + static_cast<std::ptrdiff_t>(std::min(kNamed, found.size()))))
    throw InputError("is no table of samples", "give one that train --keep-samples wrote",
                     path.string());
  std::string names;
  for (std::size_t c = kNamed; c < found.size(); ++c)
    names += (names.empty() ? "" : ",") + found[c];
  throw InputError("has the features " + names, "train with the same --features, or keep others",
                   path.string());
}

}  // namespace

void write_sample_table(const std::filesystem::path& path, const std::vector<MapClass>& classes,
                        const std::vector<Channel>& features, const SampleTable& samples) {
  CsvTable table(header_of(features));
  for (std::size_t c = 0; c < classes.size(); ++c) {
    const ClassSamples& rows = samples.of(c);
    for (std::size_t i = 0; i < rows.rows(); ++i) {
      std::vector<CsvField> row{classes[c].name, classes[c].color, rows.counts[i]};
      for (std::size_t f = 0; f < rows.features; ++f) row.emplace_back(number_text(rows.row(i)[f]));
      table.add(row);
    }
  }
  table.write(path);
}

StoredSamples read_sample_table(const std::filesystem::path& path,
                                const std::vector<Channel>& features) {
  const auto rows = read_csv(path);
  check_header(rows.empty() ? std::vector<std::string>{} : rows.front(), features, path);
  StoredSamples stored{{}, SampleTable(features_of(features).size())};
  std::vector<float> row(stored.samples.features());
  for (std::size_t r = 1; r < rows.size(); ++r) {
    const auto at = std::find_if(stored.classes.begin(), stored.classes.end(),
                                 [&](const MapClass& c) { return c.name == rows[r][0]; });
    const auto place = static_cast<std::size_t>(at - stored.classes.begin());
    if (at == stored.classes.end()) stored.classes.push_back({rows[r][0], rows[r][1]});
    for (std::size_t f = 0; f < row.size(); ++f)
      row[f] = number_in<float>(rows[r][kNamed + f], path);
    stored.samples.add(place, row.data(), number_in<std::uint64_t>(rows[r][2], path));
  }
  stored.samples.join_equal_rows();
  return stored;
}

}  // namespace chalcedony
