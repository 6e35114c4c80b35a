#include "cli/text/accuracy_text.h"

#include <fmt/format.h>

namespace chalcedony::cli {

std::string share_text(const Json& json, const char* field) {
  return json.contains(field) ? fmt::format("{:.1f} %", 100 * json[field].get<double>()) : "";
}

std::string with_interval(const Json& json, const std::string& field, double scale,
                          const char* unit) {
  if (!json.contains(field)) return "cannot be said";
  const int digits = scale == 1 ? 3 : 1;
  return fmt::format("{:.{}f}{} ({:.{}f} to {:.{}f})", scale * json[field].get<double>(), digits,
                     unit, scale * json[field + "_low"].get<double>(), digits,
                     scale * json[field + "_high"].get<double>(), digits);
}

}  // namespace chalcedony::cli
