// The known name a mistyped one most likely meant.
#ifndef CHALCEDONY_CORE_NEAREST_NAME_H_
#define CHALCEDONY_CORE_NEAREST_NAME_H_

#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace chalcedony {

/// Number of insertions, deletions, replacements and swaps of neighbors between two names.
///
/// Cost      O(|a| |b|)
/// Source    Damerau (1964), restricted to swaps of adjacent letters
std::size_t edit_distance(std::string_view a, std::string_view b);

/// The known name nearest to `typed`, case aside, or nothing when none is near enough: at most
/// a third of the letters differ, and always one may; else the first that begins so.
std::optional<std::string> nearest_name(std::string_view typed,
                                        const std::vector<std::string>& known);

/// "did you mean 'NAME'?" for the nearest known name, else what `otherwise` says.
std::string suggest_name(std::string_view typed, const std::vector<std::string>& known,
                         const std::string& otherwise);
/// The same, else "use one of ..." with all that are known.
std::string suggest_name(std::string_view typed, const std::vector<std::string>& known);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_NEAREST_NAME_H_
