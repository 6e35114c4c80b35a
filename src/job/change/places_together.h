// The maps of several places put on one list of classes and added up.
#ifndef CHALCEDONY_JOB_CHANGE_PLACES_TOGETHER_H_
#define CHALCEDONY_JOB_CHANGE_PLACES_TOGETHER_H_

#include <cstddef>
#include <cstdint>
#include <map>
#include <string>
#include <utility>
#include <vector>

#include "core/stats/share_of_units.h"
#include "job/run/summary.h"

namespace chalcedony {

/// A class from one time to another.
struct ClassCourse {
  std::vector<UnitPart> before, after;  // of each place, of its counted pixels
  std::uint64_t stayed = 0;             // in all of them

  std::uint64_t pixels_before() const;
  std::uint64_t pixels_after() const;
  /// How much its share of a place grew, in percentage points.
  double change(std::size_t place) const;
};

/// What became of the classes from one time to another.
struct StepCourse {
  std::vector<ClassCourse> classes;
  std::map<std::pair<std::size_t, std::size_t>, std::uint64_t> flows;  // of pixels that changed
  std::vector<UnitPart> changed;                                       // of each place

  /// What became `to` of what was `from`, the same or another.
  std::uint64_t pixels(std::size_t from, std::size_t to) const;
};

class PlacesTogether {
 public:
  /// `places` as place_json() has them, as many maps of each.
  explicit PlacesTogether(const Json& places);

  std::size_t size() const { return counted_.size(); }
  std::uint64_t counted() const { return all_counted_; }

  /// The classes of all places, case aside, in the order of the first place and then of what later
  /// ones add; after them what pixels without a class are called, where there are such.
  const std::vector<std::string>& names() const { return names_; }
  const std::vector<std::string>& colors() const { return colors_; }

  /// What the times are called.
  const std::vector<std::string>& times() const { return times_; }
  /// As steps_of() lists them.
  const std::vector<StepCourse>& steps() const { return steps_; }

 private:
  void list_classes(const Json& places);
  void name_times(const Json& places);
  void add_step(StepCourse& all, const Json& step, std::size_t place);
  std::size_t class_named(const Json& name) const;

  std::vector<std::uint64_t> counted_;  // of each place
  std::uint64_t all_counted_ = 0;
  std::vector<std::string> names_, colors_, times_;
  std::vector<StepCourse> steps_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CHANGE_PLACES_TOGETHER_H_
