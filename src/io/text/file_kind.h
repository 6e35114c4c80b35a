// What a JSON file of ours says of itself.
#ifndef CHALCEDONY_IO_TEXT_FILE_KIND_H_
#define CHALCEDONY_IO_TEXT_FILE_KIND_H_

#include <nlohmann/json.hpp>
#include <string_view>

namespace chalcedony {

/// Whether it is of this kind: "model", "curves", ... Neither function throws, whatever the file
/// holds there.
inline bool is_of_kind(const nlohmann::ordered_json& json, std::string_view kind) {
  return json.is_object() && json.value("chalcedony", nlohmann::ordered_json()) == kind;
}

/// Whether its version is above `highest`; one that is missing or no number is not.
inline bool is_of_later_version(const nlohmann::ordered_json& json, int highest) {
  const auto version = json.value("version", nlohmann::ordered_json());
  return version.is_number() && version.get<double>() > highest;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_TEXT_FILE_KIND_H_
