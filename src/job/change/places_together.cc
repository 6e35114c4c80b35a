#include "job/change/places_together.h"

#include <filesystem>

#include "job/change/time_names.h"
#include "job/map/class_shares.h"

namespace chalcedony {

double ClassCourse::change(std::size_t place) const {
  const std::uint64_t counted = before[place].whole;
  return percent(after[place].part, counted) - percent(before[place].part, counted);
}

PlacesTogether::PlacesTogether(const Json& places, double level) {
  for (const Json& place : places) {
    counted_.push_back(place["counted"].get<std::uint64_t>());
    all_counted_ += counted_.back();
  }
  list_classes(places);
  name_times(places);
  steps_.resize(places[0]["steps"].size());
  for (std::size_t s = 0; s < steps_.size(); ++s) {
    StepCourse& step = steps_[s];
    step.classes.resize(classes_.size());
    for (std::size_t p = 0; p < size(); ++p) {
      for (ClassCourse& one : step.classes)
        for (std::vector<UnitPart>* const time : {&one.before, &one.after})
          time->push_back({0, counted_[p]});
      add_step(step, places[p]["steps"][s], p);
    }
    add_up(step, level);
  }
}

void PlacesTogether::list_classes(const Json& places) {
  const auto list = [&](const Json& name, const std::string& color) {
    const auto text = name.get<std::string>();
    if (!class_of_name_.contains(text)) class_of_name_[text] = classes_.add(text, color);
  };
  for (const Json& place : places)
    for (const Json& one : place["maps"][0]["classes"])
      list(one["name"], one["color"].get<std::string>());
  for (const Json& place : places)
    for (const Json& step : place["steps"])
      for (const Json& one : step["classes"]) list(one["name"], kUnclassifiedColor);
}

void PlacesTogether::name_times(const Json& places) {
  std::vector<std::vector<std::filesystem::path>> files(places[0]["maps"].size());
  for (const Json& place : places)
    for (std::size_t t = 0; t < files.size(); ++t)
      files[t].emplace_back(place["maps"][t]["file"].get<std::string>());
  times_ = time_names(files);
}

void PlacesTogether::add_step(StepCourse& all, const Json& step, std::size_t place) {
  all.changed.push_back({step["changed"].get<std::uint64_t>(), counted_[place]});
  for (const Json& one : step["classes"]) {
    const std::size_t c = class_named(one["name"]);
    ClassCourse& course = all.classes[c];
    course.before[place].part = one["before"].get<std::uint64_t>();
    course.after[place].part = one["after"].get<std::uint64_t>();
    const auto stayed = one["stayed"].get<std::uint64_t>();
    course.stayed += stayed;
    if (stayed > 0) all.flows[{c, c}] += stayed;
  }
  for (const Json& flow : step["flows"])
    all.flows[{class_named(flow["from"]), class_named(flow["to"])}] +=
        flow["pixels"].get<std::uint64_t>();
}

void PlacesTogether::add_up(StepCourse& step, double level) const {
  for (ClassCourse& one : step.classes) {
    for (std::size_t p = 0; p < size(); ++p) {
      one.pixels_before += one.before[p].part;
      one.pixels_after += one.after[p].part;
    }
    one.change_of_all =
        percent(one.pixels_after, all_counted_) - percent(one.pixels_before, all_counted_);
    one.gain = gain_of_units(one.before, one.after, level);
  }
}

std::size_t PlacesTogether::class_named(const Json& name) const {
  return class_of_name_.at(name.get<std::string>());
}

}  // namespace chalcedony
