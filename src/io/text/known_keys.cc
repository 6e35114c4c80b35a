#include "io/text/known_keys.h"

#include <algorithm>

#include "core/error.h"
#include "core/nearest_name.h"

namespace chalcedony {

void check_keys(const nlohmann::ordered_json& object, const std::vector<std::string>& known) {
  for (const auto& [key, value] : object.items())
    if (std::find(known.begin(), known.end(), key) == known.end())
      throw InputError("says '" + key + "', which means nothing there", suggest_name(key, known));
}

}  // namespace chalcedony
