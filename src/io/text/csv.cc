#include "io/text/csv.h"

#include <utility>

#include "core/error.h"

#include "io/file/atomic_file.h"
#include "io/text/number_text.h"

namespace chalcedony {

CsvField::CsvField(std::string_view text) {
  if (text.find_first_of(",\"\r\n") == std::string_view::npos) {
    text_ = text;
    return;
  }
  text_ = '"';
  for (const char c : text) text_.append(c == '"' ? 2 : 1, c);
  text_ += '"';
}

CsvField::CsvField(double number) : text_(number_text(number)) {}

CsvTable::CsvTable(const std::vector<std::string>& header, std::size_t expected_bytes) {
  text_.reserve(expected_bytes);
  add(std::vector<CsvField>(header.begin(), header.end()));
}

void CsvTable::add(const std::vector<CsvField>& row) {
  for (std::size_t i = 0; i < row.size(); ++i) {
    if (i > 0) text_ += ',';
    text_ += row[i].text();
  }
  text_ += "\r\n";
}

void CsvTable::write(const std::filesystem::path& path) const { write_text_file(path, text_); }

std::vector<std::vector<std::string>> read_csv(const std::filesystem::path& path) {
  const std::string text = read_text_file(path);
  std::vector<std::vector<std::string>> rows;
  std::vector<std::string> row;
  std::string field;
  bool quoted = false;
  const auto end_row = [&] {
    row.push_back(std::exchange(field, {}));
    if (!rows.empty() && row.size() != rows.front().size())
      throw InputError("has " + std::to_string(row.size()) + " fields in line " +
                           std::to_string(rows.size() + 1) + ", " +
                           std::to_string(rows.front().size()) + " in its header",
                       "give a table as it was written", path.string());
    rows.push_back(std::exchange(row, {}));
  };
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (quoted) {
      if (c != '"') {
        field += c;
      } else if (i + 1 < text.size() && text[i + 1] == '"') {
        field += text[++i];
      } else {
        quoted = false;
      }
    } else if (c == '"') {
      quoted = true;
    } else if (c == ',') {
      row.push_back(std::exchange(field, {}));
    } else if (c == '\n') {
      end_row();
    } else if (c != '\r') {
      field += c;
    }
  }
  if (quoted)
    throw InputError("has a quote that does not end", "give a table as it was written",
                     path.string());
  if (!field.empty() || !row.empty()) end_row();
  return rows;
}

}  // namespace chalcedony
