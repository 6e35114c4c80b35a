// Spots of a picture held against those of another, or against known colors.
#ifndef CHALCEDONY_JOB_SPOT_HELD_SPOTS_H_
#define CHALCEDONY_JOB_SPOT_HELD_SPOTS_H_

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/color/color_change.h"
#include "job/spot/spot_colors.h"

namespace chalcedony {

/// A color that a spot of its name is held against.
struct NamedLab {
  std::string name;
  std::array<double, 3> lab{};  // D50
};

/// What a change is measured by.
struct ChangeLimits {
  std::vector<std::string> steady;  // spots that are known not to change
  std::optional<double> tolerance;  // in CIEDE2000
};

/// A spot, and how it differs from the color of its name, where there is one.
struct HeldSpot {
  SpotColor color;
  std::optional<std::array<double, 3>> other;  // that color, Lab
  std::optional<ColorChange> change;
  std::optional<bool> beyond_steady;     // whether it changed more than spots that are steady
  std::optional<bool> beyond_tolerance;  // whether it is farther than that
};

struct HeldSpots {
  std::vector<HeldSpot> spots;
  /// The largest change, in CIEDE2000, of spots that are known not to change: so far light and
  /// camera alone can move a spot.
  std::optional<double> steady;
};

/// Spots that are held against none.
HeldSpots not_held(std::vector<SpotColor> spots);

/// Spots are held against the colors of their names.
///
/// Errors    InputError when no spot has a name of these, or no steady one is among them
HeldSpots held_against(const std::vector<NamedLab>& others, std::vector<SpotColor> spots,
                       const ChangeLimits& limits);

/// Which way a color went, in words: "darker, yellower"; what is less than half of its largest
/// difference is not told, nor a change that is less than 0.5.
std::string change_words(const ColorChange& change);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SPOT_HELD_SPOTS_H_
