// Where the results of one of several places go, or of the only one.
#ifndef CHALCEDONY_JOB_CHANGE_PLACE_RESULTS_H_
#define CHALCEDONY_JOB_CHANGE_PLACE_RESULTS_H_

#include <filesystem>
#include <string>
#include <string_view>
#include <utility>

#include "job/run/results.h"

namespace chalcedony {

class PlaceResults {
 public:
  /// `place`: the first map, whose name results bear; empty where the run has no other place.
  PlaceResults(const Results& results, std::filesystem::path place)
      : results_(results), place_(std::move(place)) {}

  bool wants(std::string_view kind) const { return results_.wants(kind); }

  /// `<stem>.<thing>.<ext>`, or `<thing>.<ext>` of the only place.
  ///
  /// Errors    OutputError when it exists and is to be kept, or is an input itself
  std::filesystem::path path(const std::string& thing, const std::string& extension) const {
    return place_.empty() ? results_.path(thing + "." + extension)
                          : results_.path(place_, thing, extension);
  }

 private:
  const Results& results_;
  std::filesystem::path place_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CHANGE_PLACE_RESULTS_H_
