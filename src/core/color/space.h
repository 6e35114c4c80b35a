// Color spaces: what each is called, what its channels mean, and how it hangs in the tree of
// conversions.
//
// The spaces form one tree. A space knows only its parent and the steps there and back; a
// conversion climbs to the common ancestor and down again (conversion.h). So a new space is one
// file with one `Space`, and one line in space_list.inc.
#ifndef CHALCEDONY_CORE_COLOR_SPACE_H_
#define CHALCEDONY_CORE_COLOR_SPACE_H_

#include <array>
#include <cstddef>
#include <span>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "core/color/affine.h"
#include "core/planes.h"

namespace chalcedony {

/// The unit a channel is counted in; everywhere, in memory too.
enum class Unit {
  kOf255,    // 0 to 255, real numbers
  kDegrees,  // [0, 360)
  kPercent,  // 0 to 100
  kNumber,   // without a unit
};

struct ChannelInfo {
  std::string_view name;
  Unit unit = Unit::kNumber;
  double low = 0;  // the usual range: axes, histogram bins and integer files span it
  double high = 0;
};

/// A step of a conversion that is not affine: n pixels of three padded planes; `out` may be `in`.
using Kernel = void (*)(const ConstPlanes& in, const Planes& out, std::size_t n);
using Step = std::variant<Affine, Kernel>;

/// Up to three steps in order.
struct Steps {
  std::array<Step, 3> step{};
  std::size_t count = 0;

  constexpr Steps() = default;
  constexpr Steps(Step a) : step{a}, count(1) {}
  constexpr Steps(Step a, Step b) : step{a, b}, count(2) {}
  constexpr Steps(Step a, Step b, Step c) : step{a, b, c}, count(3) {}
};

struct Space {
  std::string_view id;
  std::string_view title;  // for people, with its white
  std::array<ChannelInfo, 3> channels{};
  std::size_t channel_count = 3;  // a space of one channel fills all three planes with it
  std::string_view parent;        // empty for the root, xyz-d65
  Steps from_parent{};
  Steps to_parent{};
  std::string_view white = {};  // of CIE 1976 spaces, whose values are relative to it: "D50"
  bool is_rgb = false;          // encoded r g b: float files hold 0-1, and it can leave its range
  int hue = -1;                 // index of the hue channel, -1 for none
  bool of_clipped = false;      // defined on sRGB clipped to 0-255
  bool internal = false;        // a node of the tree that has no name for users
};

/// Every space, in the order they are listed to people; internal ones included.
std::span<const Space* const> all_spaces();

/// The space with this identifier, case aside, or null. Internal ones are found as well.
const Space* find_space(std::string_view id);

/// The same, for a space that must be there.
///
/// Errors    UsageError that names the nearest identifier
const Space& space_named(std::string_view id);

/// The identifiers users may write.
std::vector<std::string> space_names();

namespace spaces {
#define CHALCEDONY_SPACE(name) extern const Space name;
#include "core/color/space_list.inc"
#undef CHALCEDONY_SPACE
}  // namespace spaces

/// A color is out of gamut when a channel lies more than this outside its range, in 255ths of it.
inline constexpr float kGamutTolerance = 0.01f;

/// r g b in 0-255, for the RGB spaces.
inline constexpr std::array<ChannelInfo, 3> kRgbChannels{
    {{"r", Unit::kOf255, 0, 255}, {"g", Unit::kOf255, 0, 255}, {"b", Unit::kOf255, 0, 255}}};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_SPACE_H_
