// The steps of `tidy` as people write them: `fill; open 2 disk; drop 40`.
#ifndef CHALCEDONY_CORE_TIDY_TIDY_STEPS_H_
#define CHALCEDONY_CORE_TIDY_TIDY_STEPS_H_

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "core/tidy/element.h"

namespace chalcedony {

struct TidyStep {
  enum class Kind {
    kDilate,
    kErode,
    kOpen,
    kClose,
    kFill,
    kDrop,
    kKeep,
    kMajority,
    kPart,
    kClearEdge,
    kInvert
  };
  std::string text;  // as it was written, blanks made single
  Kind kind = Kind::kFill;
  Element element;                        // of the first four
  std::uint64_t count = 0;                // pixels, regions, or the radius of a majority
  double deeper = 0;                      // of kPart, in pixels
  std::vector<std::string> classes = {};  // the only ones it is done to; none: all
};

/// Reads steps separated by semicolons:
///   dilate|erode|open|close RADIUS [disk|box|diamond|line [0|45|90|135]]
///   fill [PIXELS]   drop PIXELS   keep N   majority RADIUS   part PIXELS   clear-edge   invert
/// each but majority and invert maybe for some classes only: drop 40 of ruby, lead
///
/// Errors    UsageError that names the step and what was expected
std::vector<TidyStep> parse_tidy_steps(std::string_view text);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_TIDY_TIDY_STEPS_H_
