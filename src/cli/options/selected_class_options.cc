#include "cli/options/selected_class_options.h"

#include <fmt/format.h>

#include <algorithm>
#include <string_view>

#include "cli/options/option_values.h"
#include "core/error.h"
#include "core/nearest_name.h"

namespace chalcedony::cli {
namespace {

SelectedClass read_selection(const std::string& text, const SharedOptions& shared) {
  const std::size_t at = text.find('=');
  // The = of <= and >= names nothing.
  const bool has_name = at != std::string::npos && at > 0 && at + 1 < text.size() &&
                        std::string_view("<>!").find(text[at - 1]) == std::string_view::npos;
  return read_option("--where", [&]() -> SelectedClass {
    try {
      return {"", "", parse_expression(text, shared.names)};
    } catch (const UsageError&) {
      if (!has_name) throw;
    }
    const std::string name = text.substr(0, at);
    return errors_at<UsageError>("--where " + name, [&]() -> SelectedClass {
      return {name, "", parse_expression(text.substr(at + 1), shared.names)};
    });
  });
}

}  // namespace

std::vector<SelectedClass> selections_of_where(const po::variables_map& given,
                                               const SharedOptions& shared) {
  std::vector<SelectedClass> selected;
  for (const std::string& text : texts_of(given, "where"))
    selected.push_back(read_selection(text, shared));
  if (selected.size() > kMostSelections)
    throw UsageError(fmt::format("--where: there are {} selections, more than {}", selected.size(),
                                 kMostSelections),
                     "give fewer");
  if (selected.size() > 1)
    for (const SelectedClass& one : selected) require_name(one);
  return selected;
}

void require_name(const SelectedClass& one) {
  if (one.name.empty())
    throw UsageError("--where: '" + one.where.text + "' says no name of its class",
                     "write NAME=SELECTION, as in dark=\"lab.l < 30\"");
}

std::vector<std::pair<std::string, std::string>> colors_by_name(
    const po::variables_map& given, const std::vector<std::string>& names) {
  std::vector<std::pair<std::string, std::string>> colors;
  for (const std::string& text : texts_of(given, "color")) {
    const auto [name, color] = named_value("--color", text);
    if (std::all_of(names.begin(), names.end(), [](const auto& one) { return one.empty(); }))
      throw UsageError("--color: no class has a name yet",
                       "name them, as in --where \"dark=lab.l < 30\"");
    if (std::find(names.begin(), names.end(), name) == names.end())
      throw UsageError("--color: no class is called '" + name + "'", suggest_name(name, names));
    colors.emplace_back(name, css_color_option("--color", color));
  }
  return colors;
}

}  // namespace chalcedony::cli
