// The maps of several places put on one list of classes and added up.
#ifndef CHALCEDONY_JOB_CHANGE_PLACES_TOGETHER_H_
#define CHALCEDONY_JOB_CHANGE_PLACES_TOGETHER_H_

#include <cstddef>
#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/assess/class_list.h"
#include "core/stats/share_of_units.h"
#include "job/run/summary.h"

namespace chalcedony {

/// A class from one time to another.
struct ClassCourse {
  std::vector<UnitPart> before, after;                // of each place, of its counted pixels
  std::uint64_t pixels_before = 0, pixels_after = 0;  // in all of them
  std::uint64_t stayed = 0;
  // In percentage points of the shares: how much that of all grew, and how far to trust it.
  double change_of_all = 0;
  std::optional<ShareOfUnits> gain;

  /// How much its share of a place grew, in percentage points.
  double change(std::size_t place) const;
};

/// What became of the classes from one time to another.
struct StepCourse {
  std::vector<ClassCourse> classes;
  // By class and then by what it became, what stayed among them.
  std::map<std::pair<std::size_t, std::size_t>, std::uint64_t> flows;
  std::vector<UnitPart> changed;  // of each place
};

class PlacesTogether {
 public:
  /// `places` as place_json() has them, as many maps of each; `level` is that of intervals.
  ///
  /// Range     0 < level < 1
  PlacesTogether(const Json& places, double level);

  std::size_t size() const { return counted_.size(); }
  std::uint64_t counted() const { return all_counted_; }

  /// The classes of all places, case aside, in the order of the first place and then of what later
  /// ones add; after them what pixels without a class are called, where there are such.
  const std::vector<std::string>& names() const { return classes_.names(); }
  const std::vector<std::string>& colors() const { return classes_.colors(); }

  /// What the times are called.
  const std::vector<std::string>& times() const { return times_; }
  /// As steps_of() lists them.
  const std::vector<StepCourse>& steps() const { return steps_; }

 private:
  void list_classes(const Json& places);
  void name_times(const Json& places);
  void add_step(StepCourse& all, const Json& step, std::size_t place);
  void add_up(StepCourse& step, double level) const;
  std::size_t class_named(const Json& name) const;

  std::vector<std::uint64_t> counted_;  // of each place
  std::uint64_t all_counted_ = 0;
  ClassList classes_;
  std::vector<std::string> times_;
  std::map<std::string, std::size_t> class_of_name_;  // as the places write it
  std::vector<StepCourse> steps_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CHANGE_PLACES_TOGETHER_H_
