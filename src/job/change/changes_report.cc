#include "job/change/changes_report.h"

#include <algorithm>
#include <string>

#include "io/text/csv.h"
#include "job/map/class_shares.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostHistories = 100;  // in summaries; the table has all

std::vector<ClassFlow> flows_of(const TimedMaps& maps, const MapStep& step) {
  return flows_between(maps.histories(), step.first, step.second);
}

bool changed(const ClassHistory& history) {
  return std::any_of(history.classes.begin(), history.classes.end(),
                     [&](std::size_t c) { return c != history.classes.front(); });
}

/// Those with the most pixels first.
std::vector<ClassHistory> by_pixels(std::vector<ClassHistory> histories) {
  std::stable_sort(
      histories.begin(), histories.end(),
      [](const ClassHistory& a, const ClassHistory& b) { return a.pixels > b.pixels; });
  return histories;
}

/// Of class numbers from 1 on, unclassified first.
std::vector<std::uint64_t> pixels_of_map(const TimedMaps& maps, std::size_t map) {
  std::vector<std::uint64_t> pixels(maps.classes() + 1);
  for (const ClassHistory& history : maps.histories()) {
    const std::size_t c = history.classes[map];
    pixels[c == maps.classes() ? 0 : c + 1] += history.pixels;
  }
  return pixels;
}

Json map_json(const TimedMaps& maps, std::size_t map, const PixelSize& size) {
  const std::vector<std::uint64_t> pixels = pixels_of_map(maps, map);
  std::vector<MapClass> classes;
  for (std::size_t c = 0; c < maps.classes(); ++c) classes.push_back({maps.name(c), maps.color(c)});
  return {{"file", maps.file(map).string()},
          {"unclassified", pixels[0]},
          {"unclassified_percent", percent(pixels[0], maps.counted())},
          {"classes", classes_json(classes, pixels, maps.counted(), size)}};
}

Json step_json(const TimedMaps& maps, const MapStep& step, const PixelSize& size) {
  std::vector<ClassFlow> flows = flows_of(maps, step);
  const std::vector<ClassBalance> balances = class_balances(flows, maps.classes());
  const std::uint64_t changed = changed_pixels(flows);
  Json json{{"from", maps.file(step.first).string()},
            {"to", maps.file(step.second).string()},
            {"changed", changed},
            {"changed_percent", percent(changed, maps.counted())},
            {"changed_area", size.area(changed)},
            {"classes", Json::array()},
            {"flows", Json::array()}};
  for (std::size_t c = 0; c < balances.size(); ++c) {
    const ClassBalance& one = balances[c];
    if (c == maps.classes() && one.before == 0 && one.after == 0) continue;
    json["classes"].push_back({{"name", maps.name(c)},
                               {"before", one.before},
                               {"after", one.after},
                               {"stayed", one.stayed},
                               {"lost", one.lost()},
                               {"gained", one.gained()},
                               {"swapped", one.swapped()}});
  }
  std::stable_sort(flows.begin(), flows.end(),
                   [](const ClassFlow& a, const ClassFlow& b) { return a.pixels > b.pixels; });
  for (const ClassFlow& flow : flows)
    if (!flow.stayed())
      json["flows"].push_back({{"from", maps.name(flow.from)},
                               {"to", maps.name(flow.to)},
                               {"pixels", flow.pixels},
                               {"percent", percent(flow.pixels, maps.counted())},
                               {"area", size.area(flow.pixels)}});
  return json;
}

Json histories_json(const TimedMaps& maps, const PixelSize& size) {
  Json json = Json::array();
  for (const ClassHistory& history : by_pixels(maps.histories())) {
    if (json.size() == kMostHistories) break;
    if (!changed(history)) continue;
    Json names = Json::array();
    for (const std::size_t c : history.classes) names.push_back(maps.name(c));
    json.push_back({{"classes", std::move(names)},
                    {"pixels", history.pixels},
                    {"percent", percent(history.pixels, maps.counted())},
                    {"area", size.area(history.pixels)}});
  }
  return json;
}

}  // namespace

std::vector<MapStep> steps_of(std::size_t maps) {
  std::vector<MapStep> steps;
  for (std::size_t map = 1; map < maps; ++map) steps.emplace_back(map - 1, map);
  if (maps > 2) steps.emplace_back(0, maps - 1);
  return steps;
}

Json place_json(const TimedMaps& maps, const PixelSize& size) {
  Json place{{"file", maps.file(0).string()},
             {"counted", maps.counted()},
             {"excluded", excluded_json(maps.excluded())},
             {"unit", size.unit},
             {"pixel_area", size.area(1)},
             {"maps", Json::array()},
             {"steps", Json::array()}};
  for (std::size_t map = 0; map < maps.size(); ++map)
    place["maps"].push_back(map_json(maps, map, size));
  for (const MapStep& step : steps_of(maps.size()))
    place["steps"].push_back(step_json(maps, step, size));
  if (maps.size() > 2) place["histories"] = histories_json(maps, size);
  return place;
}

void write_changes(const std::filesystem::path& path, const TimedMaps& maps,
                   const PixelSize& size) {
  CsvTable table({"from_map", "to_map", "from", "to", "pixels", "share_percent", "unit", "area"});
  for (const MapStep& step : steps_of(maps.size()))
    for (const ClassFlow& flow : flows_of(maps, step))
      table.add({maps.file(step.first).string(), maps.file(step.second).string(),
                 maps.name(flow.from), maps.name(flow.to), flow.pixels,
                 percent(flow.pixels, maps.counted()), size.unit, size.area(flow.pixels)});
  table.write(path);
}

void write_gains(const std::filesystem::path& path, const TimedMaps& maps, const PixelSize& size) {
  CsvTable table({"from_map", "to_map", "class", "before", "after", "stayed", "lost", "gained",
                  "swapped", "unit", "area_before", "area_after"});
  for (const MapStep& step : steps_of(maps.size())) {
    const auto balances = class_balances(flows_of(maps, step), maps.classes());
    for (std::size_t c = 0; c < balances.size(); ++c) {
      const ClassBalance& one = balances[c];
      table.add({maps.file(step.first).string(), maps.file(step.second).string(), maps.name(c),
                 one.before, one.after, one.stayed, one.lost(), one.gained(), one.swapped(),
                 size.unit, size.area(one.before), size.area(one.after)});
    }
  }
  table.write(path);
}

void write_histories(const std::filesystem::path& path, const TimedMaps& maps,
                     const PixelSize& size) {
  std::vector<std::string> header;
  for (std::size_t map = 1; map <= maps.size(); ++map)
    header.push_back("map_" + std::to_string(map));
  for (const char* field : {"pixels", "share_percent", "unit", "area"}) header.emplace_back(field);
  CsvTable table(header);
  for (const ClassHistory& history : by_pixels(maps.histories())) {
    std::vector<CsvField> row;
    for (const std::size_t c : history.classes) row.emplace_back(maps.name(c));
    row.emplace_back(history.pixels);
    row.emplace_back(percent(history.pixels, maps.counted()));
    row.emplace_back(size.unit);
    row.emplace_back(size.area(history.pixels));
    table.add(row);
  }
  table.write(path);
}

}  // namespace chalcedony
