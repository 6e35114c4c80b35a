// Lists that people write, as in "lab.l, lab.a": items with commas between them.
#ifndef CHALCEDONY_CORE_SPLIT_LIST_H_
#define CHALCEDONY_CORE_SPLIT_LIST_H_

#include <algorithm>
#include <string>
#include <string_view>
#include <vector>

namespace chalcedony {

/// A text without the spaces around it.
inline std::string_view without_outer_spaces(std::string_view text) {
  while (text.starts_with(' ')) text.remove_prefix(1);
  while (text.ends_with(' ')) text.remove_suffix(1);
  return text;
}

/// The items of a list, between commas or another mark, without the spaces around them; one that is
/// empty where nothing stands.
inline std::vector<std::string> split_list(std::string_view list, char mark = ',') {
  std::vector<std::string> items;
  for (std::size_t from = 0; from <= list.size();) {
    const std::size_t end = std::min(list.find(mark, from), list.size());
    items.emplace_back(without_outer_spaces(list.substr(from, end - from)));
    from = end + 1;
  }
  return items;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_SPLIT_LIST_H_
