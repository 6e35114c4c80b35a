// A color target of enamel tiles, photographed by lamplight.
#ifndef CHALCEDONY_DEMO_TARGET_H_
#define CHALCEDONY_DEMO_TARGET_H_

#include <array>
#include <cstdint>
#include <string>
#include <vector>

namespace chalcedony::demo {

inline constexpr std::uint32_t kTargetColumns = 5, kTargetRows = 4, kTilePitch = 84, kTileSize = 64,
                               kTargetEdge = 4;

/// A tile and its color in daylight: Lab, white D50.
struct Tile {
  std::string name;
  std::array<double, 3> lab;
};

/// Row by row.
const std::vector<Tile>& target_tiles();

/// The middle of a tile in the picture, by its place in the list.
std::array<std::uint32_t, 2> middle_of_tile(std::size_t tile);

inline constexpr std::uint32_t kTargetWidth = kTargetColumns * kTilePitch + 2 * kTargetEdge,
                               kTargetHeight = kTargetRows * kTilePitch + 2 * kTargetEdge;

/// The target as the camera saw it: warm light, colors that run into each other, a little stray
/// light and grain. Interleaved sRGB.
std::vector<std::uint8_t> draw_target();

}  // namespace chalcedony::demo

#endif  // CHALCEDONY_DEMO_TARGET_H_
