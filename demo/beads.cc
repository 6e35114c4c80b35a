#include "demo/beads.h"

#include <algorithm>
#include <cmath>
#include <tuple>

#include "core/color/srgb.h"
#include "demo/linear_light.h"
#include "demo/panel.h"
#include "demo/random.h"

namespace chalcedony::demo {
namespace {

constexpr std::size_t kBeads = 84;
constexpr double kSmallest = 9, kLargest = 14;  // radii, pixels
constexpr double kRunTogether = 0.94;           // of two radii, the least distance of their beads
constexpr double kTouching = 0.7;               // of the beads, that are put beside another one
constexpr double kAlike = 0.5;                  // of these, that are made of its glass
constexpr double kFromEdge = 4;                 // pixels
constexpr double kDarkRim = 0.4, kShine = 0.55, kShineRadius = 0.3, kShineAside = 0.34;
constexpr double kTableGrain = 4;  // standard deviation, of 255
constexpr const char* kTableColor = "#e8eaec";

double distance(double dx, double dy) { return std::sqrt(dx * dx + dy * dy); }

/// A place beside another bead, in a direction that is as likely as any other.
std::tuple<double, double> beside(const Bead& other, double radius, Random& random) {
  double dx = 0, dy = 0, length = 0;
  do {
    dx = random.uniform(-1, 1);
    dy = random.uniform(-1, 1);
    length = distance(dx, dy);
  } while (length > 1 || length < 0.1);
  const double away = (other.radius + radius) * random.uniform(kRunTogether, 1);
  return {other.x + dx / length * away, other.y + dy / length * away};
}

bool has_room(const Bead& bead, const std::vector<Bead>& others) {
  const double margin = bead.radius + kFromEdge;
  if (bead.x < margin || bead.y < margin || bead.x > kTableWidth - margin ||
      bead.y > kTableHeight - margin)
    return false;
  return std::none_of(others.begin(), others.end(), [&](const Bead& other) {
    return distance(bead.x - other.x, bead.y - other.y) <
           kRunTogether * (bead.radius + other.radius);
  });
}

std::vector<Bead> laid_out() {
  Random random(84);
  std::vector<Bead> laid;
  while (laid.size() < kBeads) {
    Bead bead{random.uniform(0, kTableWidth), random.uniform(0, kTableHeight),
              random.uniform(kSmallest, kLargest), 1 + static_cast<unsigned>(random.next() % 3)};
    if (!laid.empty() && random.uniform() < kTouching) {
      const Bead& other = laid[random.next() % laid.size()];
      std::tie(bead.x, bead.y) = beside(other, bead.radius, random);
      if (random.uniform() < kAlike) bead.glass = other.glass;
    }
    if (has_room(bead, laid)) laid.push_back(bead);
  }
  return laid;
}

/// What a bead does to a pixel whose middle is at (x, y).
void put(Linear& pixel, const Bead& bead, const Linear& glass, double x, double y) {
  const double away = distance(x - bead.x, y - bead.y);
  const double cover = std::clamp(bead.radius + 0.5 - away, 0.0, 1.0);
  if (cover == 0) return;
  const double out = std::min(1.0, away / bead.radius);
  Linear seen = glass;
  for (double& v : seen) v *= 1 - kDarkRim * out * out;
  const double aside = kShineAside * bead.radius;
  const double to_shine =
      distance(x - bead.x + aside, y - bead.y + aside) / (kShineRadius * bead.radius);
  if (to_shine < 1) seen = mixed_light(seen, {1, 1, 1}, kShine * (1 - to_shine * to_shine));
  pixel = mixed_light(pixel, seen, cover);
}

}  // namespace

const std::vector<Bead>& beads() {
  static const std::vector<Bead> kLaid = laid_out();
  return kLaid;
}

std::vector<std::uint8_t> draw_beads() {
  std::vector<Linear> glasses;
  for (const LegendEntry& entry : glass_legend()) glasses.push_back(linear_light(entry.color));
  const Linear table = linear_light(kTableColor);
  Random random(21);
  std::vector<std::uint8_t> rgb;
  for (std::uint32_t y = 0; y < kTableHeight; ++y)
    for (std::uint32_t x = 0; x < kTableWidth; ++x) {
      Linear pixel = table;
      for (const Bead& bead : beads()) put(pixel, bead, glasses[bead.glass - 1], x + 0.5, y + 0.5);
      for (const double light : pixel)
        rgb.push_back(grainy(255 * srgb_encoded(light), kTableGrain, random));
    }
  return rgb;
}

std::vector<std::uint8_t> beads_reference() {
  std::vector<std::uint8_t> glass(std::size_t{kTableWidth} * kTableHeight);
  for (std::uint32_t y = 0; y < kTableHeight; ++y)
    for (std::uint32_t x = 0; x < kTableWidth; ++x)
      for (const Bead& bead : beads())
        if (distance(x + 0.5 - bead.x, y + 0.5 - bead.y) <= bead.radius)
          glass[std::size_t{y} * kTableWidth + x] = static_cast<std::uint8_t>(bead.glass);
  return glass;
}

}  // namespace chalcedony::demo
