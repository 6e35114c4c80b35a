#include "core/nearest_name.h"

#include <algorithm>

#include "core/letter_case.h"

namespace chalcedony {
namespace {

constexpr std::size_t kShortestBeginning = 3;  // letters

}  // namespace

std::size_t edit_distance(std::string_view a, std::string_view b) {
  const std::size_t columns = b.size() + 1;
  std::vector<std::size_t> before(columns), above(columns), row(columns);
  for (std::size_t j = 0; j < columns; ++j) above[j] = j;
  for (std::size_t i = 1; i <= a.size(); ++i) {
    row[0] = i;
    for (std::size_t j = 1; j < columns; ++j) {
      const std::size_t replaced = above[j - 1] + (a[i - 1] == b[j - 1] ? 0 : 1);
      row[j] = std::min({above[j] + 1, row[j - 1] + 1, replaced});
      const bool swapped = i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1];
      if (swapped) row[j] = std::min(row[j], before[j - 2] + 1);
    }
    std::swap(before, above);
    std::swap(above, row);
  }
  return above[b.size()];
}

std::optional<std::string> nearest_name(std::string_view typed,
                                        const std::vector<std::string>& known) {
  const std::string wanted = lower_case(typed);
  const std::size_t allowed = std::max<std::size_t>(1, wanted.size() / 3);
  std::optional<std::string> best;
  std::size_t best_distance = allowed + 1;
  for (const std::string& name : known) {
    const std::size_t distance = edit_distance(wanted, lower_case(name));
    if (distance < best_distance) {
      best_distance = distance;
      best = name;
    }
  }
  if (best || wanted.size() < kShortestBeginning) return best;
  const auto longer = std::find_if(known.begin(), known.end(), [&](const std::string& name) {
    return lower_case(name).starts_with(wanted);
  });
  return longer == known.end() ? best : *longer;
}

std::string suggest_name(std::string_view typed, const std::vector<std::string>& known,
                         const std::string& otherwise) {
  const auto name = nearest_name(typed, known);
  return name ? "did you mean '" + *name + "'?" : otherwise;
}

std::string suggest_name(std::string_view typed, const std::vector<std::string>& known) {
  std::string list = "use one of ";
  for (std::size_t i = 0; i < known.size(); ++i) list += (i ? ", " : "") + known[i];
  return suggest_name(typed, known, list);
}

}  // namespace chalcedony
