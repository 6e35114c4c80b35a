// One selection with numbers left open, and the values they take in turn.
#ifndef CHALCEDONY_CORE_SELECT_VARIANTS_H_
#define CHALCEDONY_CORE_SELECT_VARIANTS_H_

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

namespace chalcedony {

/// A number that varies: `low=180..220/5` takes five values, both ends included.
struct Variable {
  std::string name;
  std::vector<double> values;
};

/// Errors    UsageError when it is not written so, or has fewer than 2 or more than 100 values
Variable parse_variable(std::string_view text);

/// A selection with a value for each variable.
struct Variant {
  std::vector<double> values;  // of each variable
  std::string text;
};

inline constexpr std::size_t kMostVariants = 400;

/// Every combination, the last variable fastest, with `{name}` replaced by its value.
///
/// Errors    UsageError for a variable that is not in the text, a name in the text that does not
///           vary, a name given twice, or too many combinations
std::vector<Variant> variants_of(std::string_view text, const std::vector<Variable>& variables);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_SELECT_VARIANTS_H_
