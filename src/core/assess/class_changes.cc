#include "core/assess/class_changes.h"

#include <map>
#include <utility>

namespace chalcedony {

std::vector<ClassFlow> flows_between(const std::vector<ClassHistory>& histories, std::size_t before,
                                     std::size_t after) {
  std::map<std::pair<std::size_t, std::size_t>, std::uint64_t> pixels;
  for (const ClassHistory& history : histories)
    pixels[{history.classes[before], history.classes[after]}] += history.pixels;
  std::vector<ClassFlow> flows;
  for (const auto& [classes, count] : pixels)
    flows.push_back({classes.first, classes.second, count});
  return flows;
}

std::vector<ClassBalance> class_balances(const std::vector<ClassFlow>& flows, std::size_t classes) {
  std::vector<ClassBalance> balances(classes + 1);
  for (const ClassFlow& flow : flows) {
    balances[flow.from].before += flow.pixels;
    balances[flow.to].after += flow.pixels;
    if (flow.stayed()) balances[flow.from].stayed += flow.pixels;
  }
  return balances;
}

std::uint64_t changed_pixels(const std::vector<ClassFlow>& flows) {
  std::uint64_t changed = 0;
  for (const ClassFlow& flow : flows) changed += flow.stayed() ? 0 : flow.pixels;
  return changed;
}

}  // namespace chalcedony
