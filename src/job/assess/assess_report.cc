#include "job/assess/assess_report.h"

#include <algorithm>
#include <array>
#include <cstdint>
#include <string>

#include "core/stats/proportion.h"

namespace chalcedony {
/// How the pixels of a map were drawn, here or for the table that is its reference.
std::string AssessReport::design_of(std::size_t map) const {
  const auto& drawn = maps_[map].drawn();
  if (!drawn || options_.draw.draws()) return options_.draw.name();
  return *drawn == TruthDrawn::kByHand ? "by hand" : word_of(*drawn);
}

/// How the pixels of some of the maps came to be assessed.
Json AssessReport::taken_json(std::size_t first_map, std::size_t end) const {
  std::array<std::uint64_t, 5> kinds{};
  for (std::size_t i = first_map; i < end; ++i)
    for (std::size_t k = 0; k < kinds.size(); ++k) kinds[k] += maps_[i].counted().kinds[k];
  const auto of = [&](Assessed kind) { return kinds[static_cast<std::size_t>(kind)]; };
  Json excluded = Json::object();
  const auto put = [&](const char* name, Assessed kind) {
    if (of(kind) > 0) excluded[name] = of(kind);
  };
  put("outside_region", Assessed::kOutsideRegion);
  put("outside_mask", Assessed::kOutsideMask);
  put("unlabelled", Assessed::kUnlabelled);
  put("trained", Assessed::kTrained);
  return {{"design", design_of(first_map)},
          {"level", options_.level},
          {"counted", of(Assessed::kYes) + of(Assessed::kUnlabelled) + of(Assessed::kTrained)},
          {"excluded", excluded}};
}

Json AssessReport::map_json(std::size_t i) const {
  const AssessedFiles& files = maps_[i].files();
  Json json{{"file", files.map.string()}, {"against", files.reference.string()}};
  json.update(taken_json(i, i + 1));
  if (maps_[i].trained_on()) json["trained_on"] = *maps_[i].trained_on();
  json.update(assessment_json(judged_.each[i].assessment));
  for (std::size_t v = 0; v < files.versus.size(); ++v)
    json["versus"][v]["file"] = files.versus[v].string();
  if (judged_.alone()) add_plan_and_shown(json);
  return json;
}

Json AssessReport::together_json() const {
  Json json{{"maps", maps_.size()}, {"against", options_.reference.string()}};
  json.update(taken_json(0, maps_.size()));
  json.update(assessment_json(judged_.together));
  if (judged_.between)
    json["between_maps"] = {{"maps", judged_.between->units},
                            {"standard_error", judged_.between->standard_error},
                            {"overall_low", judged_.between->interval.low},
                            {"overall_high", judged_.between->interval.high}};
  for (std::size_t v = 0; v < options_.versus.size(); ++v) {
    json["versus"][v]["file"] = options_.versus[v].string();
    add_gain(json["versus"][v], v);
  }
  add_plan_and_shown(json);
  return json;
}

/// How much better the maps of a --versus are, and on how many.
void AssessReport::add_gain(Json& json, std::size_t versus) const {
  std::uint64_t better = 0, worse = 0;
  for (const JudgedMap& one : judged_.each) {
    const OtherMap& other = one.assessment.versus[versus];
    better += other.only_this > other.only_first;
    worse += other.only_this < other.only_first;
  }
  json["better_on"] = better;
  json["worse_on"] = worse;
  if (judged_.gains.empty() || !judged_.gains[versus]) return;
  const ShareOfUnits& gain = *judged_.gains[versus];
  json["gain"] = gain.share;
  json["gain_standard_error"] = gain.standard_error;
  json["gain_low"] = gain.interval.low;
  json["gain_high"] = gain.interval.high;
}

Json AssessReport::all_json() const {
  if (judged_.alone()) return map_json(0);
  Json json = together_json();
  json["each"] = Json::array();
  for (std::size_t i = 0; i < maps_.size(); ++i) json["each"].push_back(map_json(i));
  return json;
}

void AssessReport::add_plan_and_shown(Json& json) const {
  if (options_.plan) json["plan"] = plan_json();
  if (options_.show > 0) json["shown"] = shown_json();
}

Json AssessReport::plan_json() const {
  const double right = judged_.together.map.accuracy.overall.value_or(0);
  Json json{{"half_width", *options_.plan},
            {"random", sample_size_for(right, *options_.plan, options_.level)}};
  if (judged_.together.adjusted || judged_.sampled.empty())
    json["stratified"] =
        stratified_sample_size(judged_.together.map.matrix, judged_.together.mapped_shares,
                               *options_.plan, options_.level);
  return json;
}

Json AssessReport::shown_json() const {
  Json shown = Json::array();
  for (std::size_t i = 0; i < std::min(options_.show, judged_.sampled.size()); ++i) {
    const ToldPixel one = told(i);
    shown.push_back(
        {{"x", one.x}, {"y", one.y}, {"mapped", one.mapped}, {"reference", one.reference}});
    if (!one.map.empty()) shown.back()["map"] = one.map;
  }
  return shown;
}

ToldPixel AssessReport::told(std::size_t i) const {
  const DrawnPixel& drawn = judged_.sampled[i];
  const auto [map, x, y] = maps_.numbering().place_of(drawn.pixel);
  const ClassMatching& matching = judged_.matching(map);
  return {judged_.alone() ? "" : judged_.each[map].files.map.string(), x, y,
          matching.row_name(matching.row_of(drawn.labels[kOfMap])),
          matching.names[matching.column_of(drawn.labels[kOfReference])]};
}

}  // namespace chalcedony
