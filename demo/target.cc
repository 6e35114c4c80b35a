#include "demo/target.h"

#include <algorithm>
#include <cmath>
#include <cstddef>

#include "core/color/affine.h"
#include "core/color/css_color.h"
#include "demo/random.h"

namespace chalcedony::demo {
namespace {

/// Of linear light of 0-255.
constexpr Affine kLamplight{{{{0.95, 0.09, -0.02}, {0.03, 0.74, 0.05}, {0.01, 0.08, 0.50}}}, {}};
constexpr double kStrayLight = 1.0, kGrain = 1.2;
constexpr std::array<double, 3> kGround{24, 1, 3};  // Lab

/// What the camera makes of a color, in codes.
std::array<double, 3> seen(const std::array<double, 3>& lab) {
  auto light = image_of(kLamplight, Color{&spaces::kLab, lab}.in(spaces::kSrgbLinear));
  for (double& channel : light) channel = std::max(0.0, channel) + kStrayLight;
  return Color{&spaces::kSrgbLinear, light}.in(spaces::kSrgb);
}

}  // namespace

const std::vector<Tile>& target_tiles() {
  static const std::vector<Tile> kTiles{
      {"white", {95, 0, 1}},      {"ruby", {34, 50, 24}},   {"rose", {63, 36, 10}},
      {"amber", {70, 20, 64}},    {"lemon", {84, -4, 70}},  {"leaf", {56, -32, 44}},
      {"emerald", {46, -44, 14}}, {"sky", {66, -10, -30}},  {"cobalt", {32, 14, -50}},
      {"violet", {40, 30, -40}},  {"clay", {54, 30, 30}},   {"umber", {36, 14, 20}},
      {"olive", {48, -6, 38}},    {"teal", {48, -26, -10}}, {"plum", {32, 26, -8}},
      {"pearl", {82, 0, 0}},      {"silver", {66, 0, 0}},   {"slate", {50, -1, -2}},
      {"graphite", {34, 0, 0}},   {"black", {20, 0, 0}}};
  return kTiles;
}

std::array<std::uint32_t, 2> middle_of_tile(std::size_t tile) {
  const auto place = static_cast<std::uint32_t>(tile);
  return {kTargetEdge + kTilePitch / 2 + kTilePitch * (place % kTargetColumns),
          kTargetEdge + kTilePitch / 2 + kTilePitch * (place / kTargetColumns)};
}

std::vector<std::uint8_t> draw_target() {
  std::vector<std::array<double, 3>> codes;
  for (const Tile& tile : target_tiles()) codes.push_back(seen(tile.lab));
  const std::array<double, 3> ground = seen(kGround);
  // The tile that a pixel belongs to; as many as there are for the ground.
  const auto tile_at = [&](std::uint32_t x, std::uint32_t y) {
    for (std::size_t tile = 0; tile < codes.size(); ++tile) {
      const auto [middle_x, middle_y] = middle_of_tile(tile);
      const std::uint32_t left = middle_x - kTileSize / 2, top = middle_y - kTileSize / 2;
      if (x >= left && x < left + kTileSize && y >= top && y < top + kTileSize) return tile;
    }
    return codes.size();
  };
  Random random(20);
  std::vector<std::uint8_t> rgb;
  for (std::uint32_t y = 0; y < kTargetHeight; ++y)
    for (std::uint32_t x = 0; x < kTargetWidth; ++x) {
      const std::size_t tile = tile_at(x, y);
      for (const double code : tile < codes.size() ? codes[tile] : ground)
        rgb.push_back(grainy(code, kGrain, random));
    }
  return rgb;
}

}  // namespace chalcedony::demo
