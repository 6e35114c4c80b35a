// Tables for the terminal, made of columns that know what they show.
#ifndef CHALCEDONY_CLI_TEXT_TEXT_TABLE_H_
#define CHALCEDONY_CLI_TEXT_TEXT_TABLE_H_

#include <cstdint>
#include <functional>
#include <iosfwd>
#include <string>
#include <utility>
#include <vector>

#include "job/run/summary.h"

namespace chalcedony::cli {

/// A table with a row for each entry of a list in a summary. Columns stand in the order in which
/// they are added and are as wide as they need; words are set left, numbers right. A field is named
/// by its path, as in `mean/0`; where an entry lacks it, or has null there, the cell stays empty.
class TextTable {
 public:
  /// Called once for each row, in order.
  using CellText = std::function<std::string(const Json& row)>;

  /// The rows must outlive the table.
  explicit TextTable(const Json& rows) : rows_(rows) {}

  TextTable& words(const std::string& heading, const std::string& field);
  TextTable& words(const std::string& heading, const CellText& text);

  /// Names of channels with their units, as words; the whites of their spaces are told below the
  /// table.
  TextTable& channels(const std::string& heading, const std::string& field);

  /// Whole numbers, with marks between thousands.
  TextTable& counts(const std::string& heading, const std::string& field);

  /// "12.34 %".
  TextTable& percents(const std::string& heading, const std::string& field, int decimals = 2);

  /// Numbers with so many decimals.
  TextTable& decimals(const std::string& heading, const std::string& field, int decimals);

  /// Real numbers with as many decimals as the largest needs for so many digits.
  TextTable& numbers(const std::string& heading, const std::string& field, int digits = 4);

  /// The field `area` in the square of a unit; no column where that is the pixel, whose areas are
  /// its counts.
  TextTable& areas(const std::string& unit);

  /// Real numbers of values of a channel or feature, which is the heading; the white of its space
  /// is told below the table.
  TextTable& values_of(const std::string& channel, const std::string& field, int digits = 4);

  /// Several columns of real numbers whose units differ from row to row: in each row they have as
  /// many decimals as the largest there needs. Behind channels() they are values of those channels,
  /// and what is noise of one is shown as 0.
  TextTable& numbers_by_row(const std::vector<std::pair<std::string, std::string>>& columns,
                            int digits = 5);

  /// Numbers of several fields in one cell, set right: "{} at {:.1f}" of a group and a distance.
  TextTable& filled(const std::string& heading, const std::string& format,
                    const std::vector<std::string>& fields);

  /// Texts that are set right.
  TextTable& cells(const std::string& heading, const CellText& text);

  void print(std::ostream& out, std::size_t indent = 2) const;

 private:
  struct Column {
    std::string heading;
    std::vector<std::string> cells;
    bool set_left = false;
  };

  TextTable& add(const std::string& heading, bool set_left, const CellText& text);
  /// The text of a field; empty where an entry lacks it.
  TextTable& add_field(const std::string& heading, bool set_left, const std::string& field,
                       const CellText& text);
  /// Values in a space, null for none.
  TextTable& add_numbers(const std::string& heading, const std::string& field, int digits,
                         const Space* space);

  const Json& rows_;
  std::vector<Column> columns_;
  std::vector<std::string> channels_;  // whose whites are told
  std::vector<const Space*> spaces_;   // of the channel of each row
};

/// Numbers with as many decimals as the largest needs for so many digits; whole ones stay whole.
/// NaN is an empty text.
std::vector<std::string> aligned_numbers(const std::vector<double>& values, int digits);

/// A count with marks between thousands: 1,234,567.
std::string counted(std::uint64_t count);

/// A percentage to three digits: "12.3 %", "100 %", or "less than 0.001 %" where there is next to
/// nothing.
std::string rough_percent(double percent);

/// "pixel" or "pixels" after a count.
std::string plural(std::uint64_t count, const std::string& noun);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TEXT_TEXT_TABLE_H_
