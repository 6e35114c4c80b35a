// The maps of an assessment: which reference goes with each, which classes are the same in all of
// them, and passes over all.
#ifndef CHALCEDONY_JOB_ASSESS_ASSESSED_MAPS_H_
#define CHALCEDONY_JOB_ASSESS_ASSESSED_MAPS_H_

#include <cstddef>
#include <string>
#include <utility>
#include <vector>

#include "core/assess/class_matching.h"
#include "core/assess/pixel_numbering.h"
#include "job/assess/assess.h"
#include "job/assess/assessed_map.h"
#include "job/repeat/pictures_at_once.h"
#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

/// The classes of every map on one list.
struct MatchedMaps {
  std::vector<ClassMatching> each;
  ClassMatching all;  // of several maps without codes
};

class AssessedMaps {
 public:
  /// Finds the files that go with each map and counts the labels of all. With --skip-bad, maps that
  /// cannot be used are told and left out, and listed in the summary.
  ///
  /// Errors    UsageError for several maps with one reference, or two of one picture; InputError
  AssessedMaps(const AssessOptions& options, const Context& context, Json& summary);

  std::size_t size() const { return maps_.size(); }
  bool alone() const { return maps_.size() == 1; }
  const AssessedMap& operator[](std::size_t i) const { return maps_[i]; }
  /// The pixels of all maps.
  const PixelNumbering& numbering() const { return numbering_; }
  /// The name that results of a map bear: its picture's, behind the folder below the results.
  std::string picture_name(std::size_t i) const;

  /// Matches the classes of picture p, see AssessedLabels, of every map with those of its
  /// reference.
  ///
  /// Errors    InputError, see match_classes
  MatchedMaps match(std::size_t p) const;

  /// A pass over all maps, which are open meanwhile.
  void for_each(const PictureWork& work);

 private:
  void choose(Json& summary);
  void check_apart() const;
  void share_all_numbers();
  std::vector<std::pair<std::string, std::string>> pairs_of(std::size_t map, std::size_t p) const;
  void tell_done(std::size_t maps) const;

  const AssessOptions& options_;
  const Context& context_;
  std::vector<AssessedMap> maps_;
  PixelNumbering numbering_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_ASSESSED_MAPS_H_
