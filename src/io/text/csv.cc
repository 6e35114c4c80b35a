#include "io/text/csv.h"

#include <algorithm>
#include <utility>

#include "core/error.h"
#include "core/read_number.h"
#include "core/split_list.h"
#include "io/file/whole_file.h"
#include "io/text/number_text.h"

namespace chalcedony {
namespace {

using Rows = std::vector<std::vector<std::string>>;

/// What separates the fields: a comma, or what stands in the header where there is none.
char separator_of(std::string_view text) {
  char separator = ',';
  bool quoted = false;
  for (const char c : text) {
    if (c == '"') quoted = !quoted;
    if (quoted) continue;
    if (c == ',') return c;
    if (c == '\n') break;
    if (separator == ',' && (c == ';' || c == '\t')) separator = c;
  }
  return separator;
}

/// A field that is not quoted: without the spaces around it, and with the point of a number as a
/// point, where commas do not separate.
std::string plain_field(std::string_view text, char separator) {
  std::string field(without_outer_spaces(text));
  const std::size_t comma = field.find(',');
  if (separator == ',' || comma == std::string::npos) return field;
  std::string number = field;
  number[comma] = '.';
  return read_number<double>(number) ? number : field;
}

/// A table that is read character by character.
class Reading {
 public:
  explicit Reading(char separator) : separator_(separator) {}

  void take(char c) {
    if (c == '"') {
      take_quote();
    } else if (inside_) {
      field_ += c;
    } else if (c == separator_) {
      end_field();
    } else if (c == '\n') {
      end_row();
    } else if (c != '\r' && !(quoted_ && c == ' ')) {
      field_ += c;
    }
  }

  /// All of them, when there is no more to take.
  Rows rows() {
    if (inside_)
      throw InputError("has a quote that does not end", "give a table as it was written");
    if (!field_.empty() || quoted_ || !row_.empty()) end_row();
    return std::move(rows_);
  }

 private:
  /// One that ends a field may turn out to be the first of two, which stand for one.
  void take_quote() {
    if (!inside_ && quoted_) field_ += '"';
    if (!quoted_ && without_outer_spaces(field_).empty()) field_.clear();
    inside_ = !inside_;
    quoted_ = true;
  }

  void end_field() {
    row_.push_back(quoted_ ? std::move(field_) : plain_field(field_, separator_));
    field_.clear();
    quoted_ = false;
  }

  /// Rows without anything in them, which stand below tables of spreadsheets, are no rows.
  void end_row() {
    end_field();
    ++line_;
    auto row = std::exchange(row_, {});
    if (std::all_of(row.begin(), row.end(), [](const auto& field) { return field.empty(); }))
      return;
    if (!rows_.empty() && row.size() != rows_.front().size())
      throw InputError("has " + std::to_string(row.size()) + " fields in line " +
                           std::to_string(line_) + ", " + std::to_string(rows_.front().size()) +
                           " in its header",
                       "give a table as it was written");
    rows_.push_back(std::move(row));
  }

  char separator_;
  bool inside_ = false;  // a quoted field
  bool quoted_ = false;  // this field is or was
  std::string field_;
  std::vector<std::string> row_;
  Rows rows_;
  std::size_t line_ = 0;
};

}  // namespace

CsvField::CsvField(std::string_view text) {
  if (text.find_first_of(",\"\r\n") == std::string_view::npos &&
      without_outer_spaces(text) == text) {
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
  return errors_at(path.string(), [&] {
    // No text has a byte 0; what has one is a picture that was given in place of a table.
    if (text.find('\0') != std::string::npos)
      throw InputError("is no table", "give a CSV file, which is text");
    Reading reading(separator_of(text));
    for (const char c : text) reading.take(c);
    return reading.rows();
  });
}

}  // namespace chalcedony
