// Tables for the terminal.
#ifndef CHALCEDONY_CLI_TEXT_TABLE_H_
#define CHALCEDONY_CLI_TEXT_TABLE_H_

#include <iosfwd>
#include <string>
#include <vector>

namespace chalcedony::cli {

/// Rows of cells in columns as wide as they need; the first column is set left, the others right.
class TextTable {
 public:
  explicit TextTable(std::vector<std::string> header) : rows_{std::move(header)} {}
  void add(std::vector<std::string> row) { rows_.push_back(std::move(row)); }
  void print(std::ostream& out, std::size_t indent = 2) const;

 private:
  std::vector<std::vector<std::string>> rows_;
};

/// A count with marks between thousands: 1,234,567.
std::string counted(std::uint64_t count);

/// "pixel" or "pixels" after a count.
std::string plural(std::uint64_t count, const std::string& noun);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TEXT_TABLE_H_
