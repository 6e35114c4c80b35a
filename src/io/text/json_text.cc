#include "io/text/json_text.h"

namespace chalcedony {

std::string json_text(const nlohmann::ordered_json& json, int indent) {
  return json.dump(indent, ' ', false, nlohmann::ordered_json::error_handler_t::replace);
}

}  // namespace chalcedony
