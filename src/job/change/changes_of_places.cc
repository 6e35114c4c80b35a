#include "job/change/changes_of_places.h"

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "figure/changes_figure.h"
#include "figure/gains_figure.h"
#include "io/text/csv.h"
#include "job/change/changes_report.h"
#include "job/change/places_together.h"

namespace chalcedony {
namespace {

constexpr double kLevel = 0.95;  // of intervals

std::vector<std::string> files_of(const Json& places) {
  std::vector<std::string> files;
  for (const Json& place : places) files.push_back(place["file"].get<std::string>());
  return files;
}

/// A class over all places, from one time to another.
Json course_json(const ClassCourse& course, const std::string& name, const std::string& color,
                 const PlacesTogether& together, const std::vector<std::string>& files) {
  const std::uint64_t before = course.pixels_before, after = course.pixels_after,
                      counted = together.counted();
  Json json{{"name", name},
            {"color", color},
            {"before", before},
            {"after", after},
            {"stayed", course.stayed},
            {"lost", before - course.stayed},
            {"gained", after - course.stayed},
            {"before_percent", percent(before, counted)},
            {"after_percent", percent(after, counted)},
            {"change_percent", course.change_of_all}};
  if (const auto& gain = course.gain) {
    json["standard_error"] = 100 * gain->standard_error;
    json["change_low"] = 100 * gain->interval.low;
    json["change_high"] = 100 * gain->interval.high;
  }
  std::vector<double> changes;
  std::uint64_t grew = 0, shrank = 0;
  for (std::size_t p = 0; p < together.size(); ++p) {
    changes.push_back(course.change(p));
    grew += course.after[p].part > course.before[p].part;
    shrank += course.after[p].part < course.before[p].part;
  }
  json["grew_in"] = grew;
  json["shrank_in"] = shrank;
  add_lowest_and_highest(json, changes, files);
  return json;
}

/// What became of what, the most pixels first.
Json flows_json(const StepCourse& step, const PlacesTogether& together, double pixel_area) {
  std::vector<std::pair<std::pair<std::size_t, std::size_t>, std::uint64_t>> flows;
  for (const auto& flow : step.flows)
    if (flow.first.first != flow.first.second) flows.push_back(flow);
  std::stable_sort(flows.begin(), flows.end(),
                   [](const auto& a, const auto& b) { return a.second > b.second; });
  Json json = Json::array();
  for (const auto& [classes, pixels] : flows)
    json.push_back({{"from", together.names()[classes.first]},
                    {"to", together.names()[classes.second]},
                    {"pixels", pixels},
                    {"percent", percent(pixels, together.counted())},
                    {"area", static_cast<double>(pixels) * pixel_area}});
  return json;
}

Json step_together(const StepCourse& step, const MapStep& between, const PlacesTogether& together,
                   const std::vector<std::string>& files, double pixel_area) {
  std::uint64_t changed = 0;
  std::vector<double> shares;
  for (const UnitPart& place : step.changed) {
    changed += place.part;
    shares.push_back(percent(place.part, place.whole));
  }
  Json json{{"from", together.times()[between.first]},
            {"to", together.times()[between.second]},
            {"changed", changed},
            {"changed_percent", percent(changed, together.counted())},
            {"changed_area", static_cast<double>(changed) * pixel_area}};
  add_lowest_and_highest(json, shares, files);
  json["classes"] = Json::array();
  for (std::size_t c = 0; c < step.classes.size(); ++c) {
    const ClassCourse& course = step.classes[c];
    if (course.pixels_before + course.pixels_after > 0)
      json["classes"].push_back(
          course_json(course, together.names()[c], together.colors()[c], together, files));
  }
  json["flows"] = flows_json(step, together, pixel_area);
  return json;
}

Json places_json(const PlacesTogether& together, const Json& places) {
  const auto pixel_area = places[0]["pixel_area"].get<double>();
  Json json{{"places", together.size()},
            {"counted", together.counted()},
            {"unit", places[0]["unit"]},
            {"times", together.times()},
            {"steps", Json::array()}};
  const std::vector<std::string> files = files_of(places);
  const std::vector<MapStep> between = steps_of(together.times().size());
  for (std::size_t s = 0; s < between.size(); ++s)
    json["steps"].push_back(
        step_together(together.steps()[s], between[s], together, files, pixel_area));
  return json;
}

CsvField field_of(const Json& value) {
  if (value.is_null()) return {};
  if (value.is_string()) return value.get<std::string>();
  return value.is_number_unsigned() ? CsvField(value.get<std::uint64_t>())
                                    : CsvField(value.get<double>());
}

void write_places(const std::filesystem::path& path, const Json& told, double pixel_area) {
  const std::vector<std::string> fields{
      "before",         "after",          "stayed",          "lost",
      "gained",         "before_percent", "after_percent",   "change_percent",
      "change_low",     "change_high",    "grew_in",         "shrank_in",
      "lowest_percent", "lowest_file",    "highest_percent", "highest_file"};
  std::vector<std::string> header{"from", "to", "class", "places"};
  header.insert(header.end(), fields.begin(), fields.end());
  for (const char* field : {"unit", "area_before", "area_after"}) header.emplace_back(field);
  CsvTable table(header);
  for (const Json& step : told["steps"])
    for (const Json& one : step["classes"]) {
      std::vector<CsvField> row{step["from"].get<std::string>(), step["to"].get<std::string>(),
                                one["name"].get<std::string>(),
                                told["places"].get<std::uint64_t>()};
      for (const std::string& field : fields) row.push_back(field_of(one.value(field, Json())));
      row.emplace_back(told["unit"].get<std::string>());
      for (const char* pixels : {"before", "after"})
        row.emplace_back(one[pixels].get<double>() * pixel_area);
      table.add(row);
    }
  table.write(path);
}

/// What became of the classes, for the figure of flows.
ChangesFigure flows_figure(const PlacesTogether& together, const std::string& title,
                           const std::vector<std::string>& times) {
  ChangesFigure figure{title, times, {}, {}, {}};
  const std::size_t classes = together.names().size();
  const auto share = [&](std::uint64_t pixels) { return percent(pixels, together.counted()); };
  for (std::size_t c = 0; c < classes; ++c)
    figure.classes.push_back({together.names()[c], together.colors()[c]});
  figure.shares.resize(times.size());
  for (std::size_t t = 0; t + 1 < times.size(); ++t) {
    const StepCourse& step = together.steps()[t];
    for (const ClassCourse& course : step.classes) {
      if (t == 0) figure.shares[0].push_back(share(course.pixels_before));
      figure.shares[t + 1].push_back(share(course.pixels_after));
    }
    std::vector<ChangesFigure::Flow>& flows = figure.flows.emplace_back();
    for (const auto& [became, pixels] : step.flows)
      flows.push_back({became.first, became.second, share(pixels)});
  }
  return figure;
}

GainsFigure gains_of_places(const PlacesTogether& together, const Json& told) {
  GainsFigure figure{
      "How the classes went in " + std::to_string(together.size()) + " places", {}, {}};
  for (std::size_t c = 0; c < together.names().size(); ++c)
    figure.classes.push_back({together.names()[c], together.colors()[c]});
  for (std::size_t s = 0; s < together.steps().size(); ++s) {
    const Json& step = told["steps"][s];
    GainsFigure::Step& shown = figure.steps.emplace_back();
    shown.title =
        "from " + step["from"].get<std::string>() + " to " + step["to"].get<std::string>();
    for (const ClassCourse& course : together.steps()[s].classes) {
      GainsFigure::Gains& gains = shown.of.emplace_back();
      for (std::size_t p = 0; p < together.size(); ++p) gains.in_places.push_back(course.change(p));
      gains.of_all = course.change_of_all;
      if (const auto& gain = course.gain)
        gains.limits = {100 * gain->interval.low, 100 * gain->interval.high};
    }
  }
  return figure;
}

}  // namespace

ChangesFigure flows_figure(const Json& place, const std::vector<std::string>& times) {
  return flows_figure(PlacesTogether(Json::array({place}), kLevel), "What became of the classes",
                      times);
}

void report_changes(Json& summary, Plot& plot, Results& results) {
  const Json& places = summary["inputs"];
  if (places.size() < 2) return;
  const PlacesTogether together(places, kLevel);
  Json told = places_json(together, places);
  if (results.wants_of_all("places"))
    write_places(results.path("places.csv"), told, places[0]["pixel_area"].get<double>());
  if (plot.format() != FigureFormat::kNone) {
    const std::string end = ".figure." + extension_of(plot.format());
    add_flows_figure(
        plot, results.path("flows" + end),
        flows_figure(together,
                     "What became of the classes of " + std::to_string(together.size()) + " places",
                     together.times()));
    add_gains_figure(plot, results.path("gains" + end), gains_of_places(together, told));
  }
  summary["together"] = std::move(told);
}

}  // namespace chalcedony
