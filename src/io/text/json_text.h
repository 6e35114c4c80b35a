// JSON as text, whatever bytes its texts hold.
#ifndef CHALCEDONY_IO_TEXT_JSON_TEXT_H_
#define CHALCEDONY_IO_TEXT_JSON_TEXT_H_

#include <nlohmann/json.hpp>
#include <string>

namespace chalcedony {

/// JSON in one line, or with each level indented by `indent` blanks. Names of files and classes may
/// hold bytes that are no UTF-8; they become the replacement character.
std::string json_text(const nlohmann::ordered_json& json, int indent = -1);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_TEXT_JSON_TEXT_H_
