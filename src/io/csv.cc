#include "io/csv.h"

#include "io/atomic_file.h"
#include "io/number_text.h"

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

}  // namespace chalcedony
