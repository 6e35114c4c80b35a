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

/// Where the class of a name stands in a list of names, case aside.
std::optional<std::size_t> place_of_class(const std::vector<std::string>& names,
                                          const std::string& name);

/// The same; a name that is not there is added.
std::size_t place_in_list(std::vector<std::string>& names, const std::string& name);

/// Gives each of the pictures without names the numbers that any of them has: that a class does not
/// occur in one of several maps does not mean that it is none of its classes.
void share_numbers(const std::vector<LabelledClasses*>& pictures);

enum class MatchedBy { kName, kNumber, kPairs };

/// The classes of the error matrix: those of the map in its order, then those that only the
/// reference has.
struct ClassMatching {
  std::vector<std::string> names;
  std::map<unsigned, std::size_t> of_map;        // code to place in `names`
  std::map<unsigned, std::size_t> of_reference;  // likewise
  std::vector<std::string> only_in_map, only_in_reference;
  MatchedBy by = MatchedBy::kName;

  /// The row and the column of the error matrix; what the map leaves unclassified is the last row.
  std::size_t row_of(unsigned map_code) const {
    return map_code == 0 ? names.size() : of_map.at(map_code);
  }
  std::size_t column_of(unsigned reference_code) const { return of_reference.at(reference_code); }
  std::string row_name(std::size_t row) const {
    return row < names.size() ? names[row] : "unclassified";
  }
};

/// Matches by `pairs` (map, reference) where given, then by name, case aside; when no name is
/// common, by number. Several classes of the map may be paired with one of the reference, and then
/// count as that one.
///
/// Errors    InputError when a pair names a class that is not there, or no class has a partner
ClassMatching match_classes(const LabelledClasses& map, const LabelledClasses& reference,
                            const std::vector<std::pair<std::string, std::string>>& pairs);

/// Whether both classes of a pair (map, reference) are there.
bool has_pair(const LabelledClasses& map, const LabelledClasses& reference,
              const std::pair<std::string, std::string>& pair);

/// Puts the classes of several matchings on one list of names, case aside: those of the first, then
/// what only later ones have. The codes of each matching lead to places in that list, which `names`
/// of each is; what only one side of a matching has stays its own. Returns the matching of all: its
/// codes are empty, and a class has no partner when it has none in any of them.
ClassMatching put_on_one_list(std::vector<ClassMatching>& matchings);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_CLASS_MATCHING_H_
