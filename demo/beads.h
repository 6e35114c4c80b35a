// Loose glass beads on a light table, of which many touch.
#ifndef CHALCEDONY_DEMO_BEADS_H_
#define CHALCEDONY_DEMO_BEADS_H_

#include <cstdint>
#include <vector>

namespace chalcedony::demo {

inline constexpr std::uint32_t kTableWidth = 440, kTableHeight = 320;

struct Bead {
  double x, y, radius;  // pixels
  unsigned glass;       // the number of its class in glass_legend()
};

/// Ruby, cobalt and amber beads. Beads that touch run into each other a little, as they are rounder
/// than the table is flat; none hides another.
const std::vector<Bead>& beads();

/// The table with its beads, their shine and grain. Interleaved sRGB.
std::vector<std::uint8_t> draw_beads();

/// The number of the glass at each pixel; 0 is the table.
std::vector<std::uint8_t> beads_reference();

}  // namespace chalcedony::demo

#endif  // CHALCEDONY_DEMO_BEADS_H_
