#include "job/spot/held_spots.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

#include "core/error.h"

namespace chalcedony {
namespace {

const NamedLab* color_named(const std::vector<NamedLab>& colors, const std::string& name) {
  const auto found = std::find_if(colors.begin(), colors.end(),
                                  [&](const NamedLab& color) { return color.name == name; });
  return found == colors.end() ? nullptr : &*found;
}

bool is_among(const std::vector<std::string>& names, const std::string& name) {
  return std::find(names.begin(), names.end(), name) != names.end();
}

/// The largest change of the steady spots; nothing when none of them is in both pictures.
std::optional<double> steady_change(const std::vector<HeldSpot>& spots,
                                    const std::vector<std::string>& steady) {
  std::optional<double> most;
  for (const HeldSpot& spot : spots)
    if (spot.change && is_among(steady, spot.color.name))
      most = std::max(most.value_or(0), spot.change->delta_e);
  return most;
}

}  // namespace

HeldSpots not_held(std::vector<SpotColor> spots) {
  HeldSpots held;
  for (SpotColor& spot : spots) held.spots.push_back({std::move(spot), {}, {}, {}, {}});
  return held;
}

HeldSpots held_against(const std::vector<NamedLab>& others, std::vector<SpotColor> spots,
                       const ChangeLimits& limits) {
  HeldSpots held = not_held(std::move(spots));
  bool some = false;
  for (HeldSpot& spot : held.spots)
    if (const NamedLab* const other = color_named(others, spot.color.name)) {
      spot.other = other->lab;
      spot.change = color_change(other->lab, spot.color.lab);
      if (limits.tolerance) spot.beyond_tolerance = spot.change->delta_e > *limits.tolerance;
      some = true;
    }
  if (!some)
    throw InputError("has no spot that is called as one it is held against",
                     "give its spots the same names");
  if (limits.steady.empty()) return held;
  held.steady = steady_change(held.spots, limits.steady);
  if (!held.steady)
    throw InputError("has none of the steady spots", "name spots with --steady that it has");
  for (HeldSpot& spot : held.spots)
    if (spot.change && !is_among(limits.steady, spot.color.name))
      spot.beyond_steady = spot.change->delta_e > *held.steady;
  return held;
}

std::string change_words(const ColorChange& change) {
  constexpr double kLeast = 0.5, kMainly = 0.5;
  if (change.delta_e < kLeast) return "";
  struct Direction {
    double difference;
    const char *more, *less;
  };
  const std::array directions{Direction{change.lightness, "lighter", "darker"},
                              Direction{change.a, "redder", "greener"},
                              Direction{change.b, "yellower", "bluer"}};
  std::string words;
  for (const auto& [difference, more, less] : directions)
    if (std::abs(difference) >= kMainly * change.largest())
      words += (words.empty() ? "" : ", ") + std::string(difference > 0 ? more : less);
  return words;
}

}  // namespace chalcedony
