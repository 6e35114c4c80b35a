#include "io/class_legend.h"

#include <nlohmann/json.hpp>

#include "core/error.h"

namespace chalcedony {

std::string legend_text(const std::vector<LegendEntry>& legend) {
  auto list = nlohmann::ordered_json::array();
  for (const LegendEntry& entry : legend)
    list.push_back({{"index", entry.index}, {"name", entry.name}, {"color", entry.color}});
  return list.dump();
}

std::vector<LegendEntry> parse_legend(std::string_view text) {
  try {
    std::vector<LegendEntry> legend;
    for (const auto& entry : nlohmann::json::parse(text))
      legend.push_back({entry.at("index").get<unsigned>(), entry.at("name").get<std::string>(),
                        entry.at("color").get<std::string>()});
    return legend;
  } catch (const nlohmann::json::exception&) {
    throw InputError("its list of classes is damaged", "write the class map again");
  }
}

}  // namespace chalcedony
