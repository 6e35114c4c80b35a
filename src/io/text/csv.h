// Tables as CSV.
#ifndef CHALCEDONY_IO_TEXT_CSV_H_
#define CHALCEDONY_IO_TEXT_CSV_H_

#include <cstdint>
#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

namespace chalcedony {

/// One field: text, an integer, a real, or nothing.
class CsvField {
 public:
  CsvField() = default;
  CsvField(std::string_view text);
  CsvField(const std::string& text) : CsvField(std::string_view(text)) {}
  CsvField(const char* text) : CsvField(std::string_view(text)) {}
  CsvField(std::uint64_t number) : text_(std::to_string(number)) {}
  CsvField(double number);
  const std::string& text() const { return text_; }

 private:
  std::string text_;
};

/// A table that grows row by row and is written whole.
///
/// Source    RFC 4180: fields with commas, quotes, line ends or a space at an end are quoted; lines
///           end in CR LF
class CsvTable {
 public:
  /// `expected_bytes` makes room at once, for tables whose memory should not depend on what the
  /// numbers in them are.
  explicit CsvTable(const std::vector<std::string>& header, std::size_t expected_bytes = 0);
  void add(const std::vector<CsvField>& row);
  const std::string& text() const { return text_; }
  void write(const std::filesystem::path& path) const;

 private:
  std::string text_;
};

/// The rows of a table, its header first. Tables that a spreadsheet saved are read as well: with a
/// UTF-8 mark in front, fields that semicolons or tabs separate (1,5 is 1.5 in them), spaces around
/// fields and empty rows, which are left out.
///
/// Errors    InputError when the file cannot be read or is no text, a quoted field does not end, or
///           the number of fields differs between rows
/// Source    RFC 4180; lines may end in LF alone
std::vector<std::vector<std::string>> read_csv(const std::filesystem::path& path);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_TEXT_CSV_H_
