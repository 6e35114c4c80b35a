#include "io/metadata/class_legend.h"

#include <nlohmann/json.hpp>

#include "core/color/css_color.h"
#include "core/error.h"
#include "core/nearest_name.h"
#include "core/palette/figure_colors.h"
#include "io/text/json_text.h"

namespace chalcedony {
namespace {

InputError damaged() { return {"its list of classes is damaged", "write the class map again"}; }

/// The color of a class: what is written, or where that is no color, the one that class has by
/// default.
std::string color_of(const nlohmann::json& entry, unsigned index) {
  const std::string written = entry.value("color", "");
  try {
    return css_hex(css_color(written));
  } catch (const UsageError&) {
    return css_hex(class_color(index - 1));
  }
}

}  // namespace

std::vector<LegendEntry> legend_of(const std::vector<MapClass>& classes) {
  std::vector<LegendEntry> legend;
  for (const MapClass& c : classes)
    legend.push_back({static_cast<unsigned>(legend.size() + 1), c.name, c.color});
  return legend;
}

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
      const auto index = entry.at("index").get<unsigned>();
      if (index == 0 || index >= kLabels) throw damaged();
      legend.push_back({index, entry.at("name").get<std::string>(), color_of(entry, index)});
    }
    return legend;
  } catch (const nlohmann::json::exception&) {
    throw damaged();
  }
}

std::vector<Label> labels_named(const std::vector<LegendEntry>& legend, const std::string& name) {
  std::vector<Label> labels;
  std::vector<std::string> names;
  for (const LegendEntry& entry : legend) {
    names.push_back(entry.name);
    if (entry.name == name) labels.push_back(static_cast<Label>(entry.index));
  }
  if (labels.empty()) throw InputError("has no class '" + name + "'", suggest_name(name, names));
  return labels;
}

}  // namespace chalcedony
