#include "figure/plot/text_lines.h"

#include <algorithm>

namespace chalcedony {

std::vector<std::string> text_lines(std::string_view text, std::size_t columns) {
  std::vector<std::string> lines(1);
  for (std::size_t from = 0; from < text.size();) {
    const std::size_t end = std::min(text.find(' ', from), text.size());
    const std::string_view word = text.substr(from, end - from);
    std::string& line = lines.back();
    if (line.empty()) {
      line = word;
    } else if (line.size() + 1 + word.size() > columns) {
      lines.emplace_back(word);
    } else {
      line += ' ';
      line += word;
    }
    from = end + 1;
  }
  return lines;
}

}  // namespace chalcedony
