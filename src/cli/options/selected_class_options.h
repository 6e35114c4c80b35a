// Classes that are selections, as options write them: --where NAME=SELECTION and --color
// NAME=COLOR.
#ifndef CHALCEDONY_CLI_OPTIONS_SELECTED_CLASS_OPTIONS_H_
#define CHALCEDONY_CLI_OPTIONS_SELECTED_CLASS_OPTIONS_H_

#include <cstddef>
#include <string>
#include <utility>
#include <vector>

#include "cli/options/command.h"
#include "core/select/selected_classes.h"

namespace chalcedony::cli {

/// The most selections that --where takes together.
inline constexpr std::size_t kMostSelections = 64;

/// The selections of --where, without colors. What is no selection as a whole is a name and one
/// behind the first =; a selection that stands alone may have no name.
///
/// Errors    UsageError that names the option; for more than kMostSelections
std::vector<SelectedClass> selections_of_where(const po::variables_map& given,
                                               const SharedOptions& shared);

/// Refuses one of --where without a name.
///
/// Errors    UsageError that shows it
void require_name(const SelectedClass& one);

/// The names and colors of --color, the colors as CSS hexadecimal.
///
/// Errors    UsageError for a name that is none of `names`
std::vector<std::pair<std::string, std::string>> colors_by_name(
    const po::variables_map& given, const std::vector<std::string>& names);

/// Gives the classes that --color names their colors.
///
/// Errors    UsageError when it names another one
template <class Class>
void color_classes(const po::variables_map& given, std::vector<Class>& classes) {
  std::vector<std::string> names;
  for (const Class& one : classes) names.push_back(one.name);
  for (const auto& [name, color] : colors_by_name(given, names))
    for (Class& one : classes)
      if (one.name == name) one.color = color;
}

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_OPTIONS_SELECTED_CLASS_OPTIONS_H_
