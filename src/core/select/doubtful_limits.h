// Limits that no value of their channel reaches, or that look as if it were counted otherwise: a
// saturation up to 255, a hue up to 180.
#ifndef CHALCEDONY_CORE_SELECT_DOUBTFUL_LIMITS_H_
#define CHALCEDONY_CORE_SELECT_DOUBTFUL_LIMITS_H_

#include <optional>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/select/expression.h"

namespace chalcedony {

/// What a test lets through, ends included; none where it is open. An interval of a hue may run
/// from a higher to a lower value.
struct Limits {
  std::optional<double> low, high;
};

struct DoubtfulLimits {
  bool outside = false;   // no usual value of the channel lies within
  bool never = false;     // nor any other: its values cannot leave their range
  double counted_to = 0;  // where the channel seems to end for whoever wrote them; 0: as it does
  bool runs_on = false;   // an interval of a hue that goes below 0 or above 360
};

/// What is doubtful about limits of one channel, if anything. Nothing is of stored channels and of
/// those that people define. `beside`: all limits of the channel that are written together, these
/// among them. A hue seems to end at 255, or, where some begin at 0, at 180 or 240, when the
/// highest of all does: so red is written as two intervals where hues end there.
std::optional<DoubtfulLimits> doubt_about(const Channel& channel, const Limits& limits,
                                          const std::vector<Limits>& beside);

/// Doubtful limits as they seem to be meant: brought to the channel's unit, or to its circle.
Limits limits_instead(const Channel& channel, const Limits& limits, const DoubtfulLimits& doubt);

/// A test on one channel with doubtful limits.
struct DoubtfulTest {
  std::string text;  // as it stands in the selection
  Channel channel;
  DoubtfulLimits doubt;
  std::string instead;  // the same test as it seems to be meant; empty when that is not known
};

/// The doubtful tests of a selection, in its order.
std::vector<DoubtfulTest> doubtful_tests(const Expression& selection);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_SELECT_DOUBTFUL_LIMITS_H_
