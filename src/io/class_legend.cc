#include "io/class_legend.h"

#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/pixel/label.h"
#include "io/json_text.h"

namespace chalcedony {
namespace {

InputError damaged() { return {"its list of classes is damaged", "write the class map again"}; }

}  // namespace

std::string legend_text(const std::vector<LegendEntry>& legend) {
  auto list = nlohmann::ordered_json::array();
  for (const LegendEntry& entry : legend)
    list.push_back({{"index", entry.index}, {"name", entry.name}, {"color", entry.color}});
  return json_text(list);
}

std::vector<LegendEntry> parse_legend(std::string_view text) {
  try {
    std::vector<LegendEntry> legend;
    for (const auto& entry : nlohmann::json::parse(text)) {
      legend.push_back({entry.at("index").get<unsigned>(), entry.at("name").get<std::string>(),
                        entry.at("color").get<std::string>()});
      if (legend.back().index == 0 || legend.back().index >= kLabels) throw damaged();
    }
    return legend;
  } catch (const nlohmann::json::exception&) {
    throw damaged();
  }
}

}  // namespace chalcedony
