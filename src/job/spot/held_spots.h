// Spots of a picture held against those of another.
#ifndef CHALCEDONY_JOB_SPOT_HELD_SPOTS_H_
#define CHALCEDONY_JOB_SPOT_HELD_SPOTS_H_

#include <optional>
#include <string>
#include <vector>

#include "core/color/color_change.h"
#include "job/spot/spot_colors.h"

namespace chalcedony {

/// A spot, and how it differs from the one of its name in the other picture, where there is one.
struct HeldSpot {
  SpotColor color;
  std::optional<ColorChange> change;
  std::optional<bool> beyond_steady;  // whether it changed more than spots that are steady
};

struct HeldSpots {
  std::vector<HeldSpot> spots;
  /// The largest change, in CIEDE2000, of spots that are known not to change: so far light and
  /// camera alone can move a spot.
  std::optional<double> steady;
};

/// Spots that are held against none.
HeldSpots not_held(std::vector<SpotColor> spots);

/// Spots are the same when their names are. `steady`: names of spots that are known not to change.
///
/// Errors    InputError when no spot has a name of the other picture, or no steady one is among
///           them
HeldSpots held_against(const std::vector<SpotColor>& other, std::vector<SpotColor> spots,
                       const std::vector<std::string>& steady);

/// Which way a color went, in words: "darker, yellower"; what is less than half of its largest
/// difference is not told, nor a change that is less than 0.5.
std::string change_words(const ColorChange& change);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SPOT_HELD_SPOTS_H_
