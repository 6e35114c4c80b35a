// Which class of a map is which class of the reference.
#ifndef CHALCEDONY_CORE_ASSESS_CLASS_MATCHING_H_
#define CHALCEDONY_CORE_ASSESS_CLASS_MATCHING_H_

#include <cstddef>
#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace chalcedony {

/// A class as a label picture numbers it; 0 stands for no class and is not listed.
struct LabelledClass {
  unsigned code = 0;
  std::string name;
};

/// The classes of a picture of labels. Names that were only made up from the numbers are not used
/// to find partners.
struct LabelledClasses {
  std::vector<LabelledClass> classes;
  bool named = true;
};

enum class MatchedBy { kName, kNumber, kPairs };

/// The classes of the error matrix: those of the map in its order, then those that only the
/// reference has.
struct ClassMatching {
  std::vector<std::string> names;
  std::map<unsigned, std::size_t> of_map;        // code to place in `names`
  std::map<unsigned, std::size_t> of_reference;  // likewise
  std::vector<std::string> only_in_map, only_in_reference;
  MatchedBy by = MatchedBy::kName;
};

/// Matches by `pairs` (map, reference) where given, then by name, case aside; when no name is
/// common, by number. Several classes of the map may be paired with one of the reference, and then
/// count as that one.
///
/// Errors    InputError when a pair names a class that is not there, or no class has a partner
ClassMatching match_classes(const LabelledClasses& map, const LabelledClasses& reference,
                            const std::vector<std::pair<std::string, std::string>>& pairs);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_CLASS_MATCHING_H_
