// What an assessment says: the fields of its summary and of accuracy.json.
#ifndef CHALCEDONY_JOB_ASSESS_ASSESS_REPORT_H_
#define CHALCEDONY_JOB_ASSESS_ASSESS_REPORT_H_

#include <cstddef>

#include "job/assess/assess.h"
#include "job/assess/assessed_maps.h"
#include "job/assess/judged_maps.h"
#include "job/run/summary.h"

namespace chalcedony {

class AssessReport {
 public:
  AssessReport(const AssessOptions& options, const AssessedMaps& maps, const JudgedMaps& judged)
      : options_(options), maps_(maps), judged_(judged) {}

  /// One map; that of the whole run when there are no others.
  Json map_json(std::size_t i) const;
  /// All of several maps together.
  Json together_json() const;
  /// What accuracy.json holds.
  Json all_json() const;
  /// A drawn pixel.
  ToldPixel told(std::size_t i) const;

 private:
  std::string design_of(std::size_t map) const;
  Json taken_json(std::size_t first_map, std::size_t end) const;
  void add_gain(Json& json, std::size_t versus) const;
  void add_plan_and_shown(Json& json) const;
  Json plan_json() const;
  Json shown_json() const;

  const AssessOptions& options_;
  const AssessedMaps& maps_;
  const JudgedMaps& judged_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_ASSESS_REPORT_H_
