#include "cli/text/text_table.h"

#include <fmt/args.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <ostream>

#include "cli/text/channel_text.h"
#include "cli/text/json_format.h"
#include "core/channel/quoted_channel.h"
#include "io/text/letters.h"
#include "io/text/number_text.h"

namespace chalcedony::cli {
namespace {

/// The field of an entry; null where it has none.
Json field_of(const Json& row, const std::string& path) {
  const Json::json_pointer pointer("/" + path);
  return row.contains(pointer) ? row[pointer] : Json();
}

double number_of(const Json& field) {
  return field.is_null() ? std::numeric_limits<double>::quiet_NaN() : field.get<double>();
}

/// Places on the screen: letters of UTF-8, whatever their bytes.
std::size_t width_of(const std::string& text) {
  return static_cast<std::size_t>(std::count_if(text.begin(), text.end(), begins_letter));
}

int decimals_for(const std::vector<double>& values, int digits) {
  constexpr double kMostWhole = 1e9;
  constexpr int kMost = 12;
  double largest = 0;
  bool whole = true;
  for (const double value : values) {
    if (!std::isfinite(value)) continue;
    largest = std::max(largest, std::abs(value));
    whole = whole && value == std::round(value);
  }
  if (largest == 0 || (whole && largest < kMostWhole)) return 0;
  return std::clamp(digits - 1 - static_cast<int>(std::floor(std::log10(largest))), 0, kMost);
}

}  // namespace

std::vector<std::string> aligned_numbers(const std::vector<double>& values, int digits) {
  const int decimals = decimals_for(values, digits);
  std::vector<std::string> texts;
  for (const double value : values)
    texts.push_back(std::isnan(value) ? "" : fixed_text(value, decimals));
  return texts;
}

TextTable& TextTable::add(const std::string& heading, bool set_left, const CellText& text) {
  Column& column = columns_.emplace_back(Column{heading, {}, set_left});
  for (const Json& row : rows_) column.cells.push_back(text(row));
  return *this;
}

TextTable& TextTable::add_field(const std::string& heading, bool set_left, const std::string& field,
                                const CellText& text) {
  return add(heading, set_left, [&](const Json& row) {
    const Json value = field_of(row, field);
    return value.is_null() ? "" : text(value);
  });
}

TextTable& TextTable::add_numbers(const std::string& heading, const std::string& field, int digits,
                                  const Space* space) {
  std::vector<double> values;
  for (const Json& row : rows_)
    values.push_back(without_noise(space, number_of(field_of(row, field))));
  columns_.push_back({heading, aligned_numbers(values, digits)});
  return *this;
}

TextTable& TextTable::words(const std::string& heading, const CellText& text) {
  return add(heading, true, text);
}

TextTable& TextTable::words(const std::string& heading, const std::string& field) {
  return add_field(heading, true, field,
                   [](const Json& value) { return fmt::format("{}", value); });
}

TextTable& TextTable::channels(const std::string& heading, const std::string& field) {
  return words(heading, [&](const Json& row) {
    const std::string channel = row[field], unit = row.value("unit", "");
    channels_.push_back(channel);
    spaces_.push_back(space_in(channel));
    return channel + (unit.empty() ? "" : " (" + unit + ")");
  });
}

TextTable& TextTable::cells(const std::string& heading, const CellText& text) {
  return add(heading, false, text);
}

TextTable& TextTable::filled(const std::string& heading, const std::string& format,
                             const std::vector<std::string>& fields) {
  return cells(heading, [&](const Json& row) -> std::string {
    std::vector<Json> values;
    for (const std::string& field : fields) values.push_back(field_of(row, field));
    fmt::dynamic_format_arg_store<fmt::format_context> arguments;
    for (const Json& value : values) {
      if (value.is_null()) return "";
      arguments.push_back(std::cref(value));  // a copy would be taken for a string
    }
    return fmt::vformat(format, arguments);
  });
}

TextTable& TextTable::counts(const std::string& heading, const std::string& field) {
  return add_field(heading, false, field, [](const Json& value) { return counted(value); });
}

TextTable& TextTable::percents(const std::string& heading, const std::string& field, int decimals) {
  return add_field(heading, false, field,
                   [&](const Json& value) { return fixed_text(value, decimals) + " %"; });
}

TextTable& TextTable::decimals(const std::string& heading, const std::string& field, int decimals) {
  return add_field(heading, false, field,
                   [&](const Json& value) { return fixed_text(value, decimals); });
}

TextTable& TextTable::numbers(const std::string& heading, const std::string& field, int digits) {
  return add_numbers(heading, field, digits, nullptr);
}

TextTable& TextTable::areas(const std::string& unit) {
  return unit == "px" ? *this : numbers("area " + unit + "\u00b2", "area", 6);
}

TextTable& TextTable::values_of(const std::string& channel, const std::string& field, int digits) {
  channels_.push_back(channel);
  return add_numbers(channel, field, digits, space_in(channel));
}

TextTable& TextTable::numbers_by_row(
    const std::vector<std::pair<std::string, std::string>>& columns, int digits) {
  const std::size_t first = columns_.size();
  for (const auto& [heading, field] : columns) columns_.push_back({heading, {}});
  for (std::size_t r = 0; r < rows_.size(); ++r) {
    std::vector<double> values;
    for (const auto& [heading, field] : columns)
      values.push_back(without_noise(spaces_.empty() ? nullptr : spaces_[r],
                                     number_of(field_of(rows_[r], field))));
    const std::vector<std::string> texts = aligned_numbers(values, digits);
    for (std::size_t c = 0; c < texts.size(); ++c) columns_[first + c].cells.push_back(texts[c]);
  }
  return *this;
}

void TextTable::print(std::ostream& out, std::size_t indent) const {
  std::vector<std::string> lines(rows_.size() + 1, std::string(indent, ' '));
  for (std::size_t c = 0; c < columns_.size(); ++c) {
    const Column& column = columns_[c];
    std::size_t width = width_of(column.heading);
    for (const std::string& cell : column.cells) width = std::max(width, width_of(cell));
    for (std::size_t line = 0; line < lines.size(); ++line) {
      const std::string& cell = line == 0 ? column.heading : column.cells[line - 1];
      const std::string gap(width - width_of(cell), ' ');
      lines[line] += (c == 0 ? "" : "  ") + (column.set_left ? cell + gap : gap + cell);
    }
  }
  for (std::string& line : lines) {
    line.erase(line.find_last_not_of(' ') + 1);
    out << line << '\n';
  }
  print_whites(channels_, out);
}

std::string counted(std::uint64_t count) {
  std::string text = std::to_string(count);
  for (std::size_t i = text.size(); i > 3;) text.insert(i -= 3, ",");
  return text;
}

std::string rough_percent(double percent) {
  constexpr double kLeast = 0.001;
  if (percent > 0 && percent < kLeast) return fmt::format("less than {} %", kLeast);
  return rounded_text(percent, 3) + " %";
}

std::string plural(std::uint64_t count, const std::string& noun) {
  return counted(count) + " " + noun + (count == 1 ? "" : "s");
}

}  // namespace chalcedony::cli
