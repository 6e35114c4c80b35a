// A row of values made into a longer or a shorter one.
#ifndef CHALCEDONY_CORE_REFRAME_TAPPED_LINE_H_
#define CHALCEDONY_CORE_REFRAME_TAPPED_LINE_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/reframe/resampling.h"

namespace chalcedony {

/// Takes new values of old ones, several beside one another. Const, so all threads share it.
class TappedLine {
 public:
  explicit TappedLine(const std::vector<Taps>& taps);

  /// How many new values there are.
  std::size_t size() const { return size_; }

  /// Writes the sum of what each new value takes, added up from its first old one on.
  ///
  /// Shape     `in` has kPlanePadding finite numbers after its last value; `out` has room for
  ///           size() rounded up to the padding
  void run(const float* in, float* out) const;

 private:
  /// What kPlanePadding new values take: of old ones from `first` on, each with weights for all of
  /// them, 0 where one takes fewer than the others.
  struct Group {
    std::size_t first;    // in firsts_
    std::size_t weights;  // in weights_
    std::size_t taps;
  };

  std::size_t size_;
  std::vector<Group> groups_;
  std::vector<std::int32_t> firsts_;
  std::vector<float> weights_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REFRAME_TAPPED_LINE_H_
