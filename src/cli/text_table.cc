#include "cli/text_table.h"

#include <algorithm>
#include <cstdint>
#include <ostream>

namespace chalcedony::cli {

void TextTable::print(std::ostream& out, std::size_t indent) const {
  std::vector<std::size_t> widths;
  for (const auto& row : rows_)
    for (std::size_t c = 0; c < row.size(); ++c) {
      if (c == widths.size()) widths.push_back(0);
      widths[c] = std::max(widths[c], row[c].size());
    }
  for (const auto& row : rows_) {
    std::string line(indent, ' ');
    for (std::size_t c = 0; c < row.size(); ++c) {
      const std::string gap(widths[c] - row[c].size(), ' ');
      if (c > 0) line += "  ";
      line += c == 0 ? row[c] + gap : gap + row[c];
    }
    line.erase(line.find_last_not_of(' ') + 1);
    out << line << '\n';
  }
}

std::string counted(std::uint64_t count) {
  std::string text = std::to_string(count);
  for (std::size_t i = text.size(); i > 3;) text.insert(i -= 3, ",");
  return text;
}

std::string plural(std::uint64_t count, const std::string& noun) {
  return counted(count) + " " + noun + (count == 1 ? "" : "s");
}

}  // namespace chalcedony::cli
