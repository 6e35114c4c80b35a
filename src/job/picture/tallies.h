// One tally a thread, merged at the end. For whole numbers only: their sums do not depend on the
// order in which threads finish.
#ifndef CHALCEDONY_JOB_PICTURE_TALLIES_H_
#define CHALCEDONY_JOB_PICTURE_TALLIES_H_

#include "core/per_thread.h"

namespace chalcedony {

template <class Tally>
class Tallies {
 public:
  explicit Tallies(const Tally& empty) : total_(empty), local_([empty] { return empty; }) {}

  /// The tally of the calling thread.
  Tally& local() { return local_.local(); }

  /// Merges all threads by `merge(total, one)`.
  template <class Merge>
  Tally& merged(Merge merge) {
    local_.for_each([&](const Tally& one) { merge(total_, one); });
    local_.clear();
    return total_;
  }

 private:
  Tally total_;
  PerThread<Tally> local_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_TALLIES_H_
