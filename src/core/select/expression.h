// The selection language: `hsv.h in 200..260 and hsv.s >= 40`.
#ifndef CHALCEDONY_CORE_SELECT_EXPRESSION_H_
#define CHALCEDONY_CORE_SELECT_EXPRESSION_H_

#include <cstddef>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "core/channel/channel.h"
#include "core/channel/formula.h"
#include "core/color/css_color.h"

namespace chalcedony {

/// A yes, no or missing for each pixel.
struct TestNode {
  enum class Kind {
    kLess,
    kLessEqual,
    kGreater,
    kGreaterEqual,
    kEqual,
    kNotEqual,
    kInside,
    kNear,
    kNot,
    kAnd,
    kOr
  };
  Kind kind = Kind::kAnd;
  std::size_t from = 0, to = 0;           // comparisons and kInside: where it stands in the text
  std::unique_ptr<Formula> value, limit;  // comparisons; `value` of kInside
  double low = 0, high = 0;               // kInside
  bool wraps = false;                     // kInside over a hue, through 360
  double tolerance = 0;                   // comparisons and kInside: what counts as equal
  std::array<double, 3> lab{};            // kNear
  std::size_t first_lab_channel = 0;      // kNear: lab.l lab.a lab.b stand side by side here
  double distance = 0;                    // kNear, in CIEDE2000
  std::unique_ptr<TestNode> left, right;  // kNot uses left
};

/// A selection, parsed and checked.
struct Expression {
  std::string text;
  std::vector<Channel> channels;  // what it needs, each once (those of near() side by side)
  std::unique_ptr<TestNode> test;
};

/// How far a value may lie outside of a limit and still be on it: a millionth of the channel's
/// usual range; nothing of a stored channel.
double equality_tolerance(const Channel& channel);

/// Reads a selection. `not` binds before `and`, `and` before `or`, `* /` before `+ -`. Channel
/// names may hold hyphens; the longest known name is taken.
///
/// Errors    UsageError with the place and what was expected there; an unknown channel with the
///           nearest name; an interval from high to low over anything but a hue
Expression parse_expression(std::string_view text, const ChannelNames& names = {});

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_SELECT_EXPRESSION_H_
