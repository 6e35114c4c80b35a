#include "figure/plot/name_tics.h"

#include <fmt/format.h>

#include "figure/plot/fitted_text.h"
#include "figure/plot/plot.h"

namespace chalcedony {
namespace {

constexpr double kTurnedNamesLong = 100, kBetweenNames = 10;  // of the page, in pixels

}  // namespace

std::vector<std::string> names_above(const std::vector<std::string>& names, double column,
                                     bool turned, int points) {
  return fitted_names(names, turned ? kTurnedNamesLong : column - kBetweenNames, points);
}

std::string name_tics(const std::vector<std::string>& names, const std::vector<std::string>& behind,
                      std::size_t most) {
  const std::size_t step = (names.size() + most - 1) / most;
  std::string list;
  const auto add = [&](const std::string& name, std::size_t place) {
    list += fmt::format("{}{} {:g}", list.empty() ? "" : ", ", literal(name),
                        static_cast<double>(place) + 0.5);
  };
  for (std::size_t i = 0; i < names.size(); i += step) add(names[i], i);
  for (std::size_t i = 0; i < behind.size(); ++i) add(behind[i], names.size() + i);
  return fmt::format("({}) textcolor rgb '{}'", list, Ink::kText);
}

}  // namespace chalcedony
