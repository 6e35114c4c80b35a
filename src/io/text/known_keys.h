// The keys that an object of a JSON file of ours may have.
#ifndef CHALCEDONY_IO_TEXT_KNOWN_KEYS_H_
#define CHALCEDONY_IO_TEXT_KNOWN_KEYS_H_

#include <nlohmann/json.hpp>
#include <string>
#include <vector>

namespace chalcedony {

/// Refuses a key that would be read without effect, as one that was mistyped by hand.
///
/// Errors    InputError, without a place, when the object has another key than those known
void check_keys(const nlohmann::ordered_json& object, const std::vector<std::string>& known);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_TEXT_KNOWN_KEYS_H_
