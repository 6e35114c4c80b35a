#include "core/palette/figure_colors.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <optional>

#include "core/color/ciede2000.h"

namespace chalcedony {
namespace {

// OKLCh. Found by search for the largest least distance over the four kinds of color vision.
constexpr std::array<std::array<double, 3>, 8> kFirstColors{{{0.44, 0.20, 270},
                                                             {0.89, 0.20, 120},
                                                             {0.41, 0.14, 30},
                                                             {0.74, 0.14, 300},
                                                             {0.65, 0.12, 50},
                                                             {0.62, 0.04, 190},
                                                             {0.86, 0.06, 30},
                                                             {0.41, 0.04, 340}}};

constexpr double kGoldenAngle = 137.50776405;

/// The way of the heat ramp through oklab: slate, chalcedony blue-gray, honey, near white.
constexpr std::array<std::array<double, 3>, 4> kHeatStops{
    {{0.24, -0.010, -0.030}, {0.55, -0.025, -0.050}, {0.78, 0.030, 0.105}, {0.985, 0.000, 0.020}}};

double distance(const std::array<double, 3>& a, const std::array<double, 3>& b) {
  return std::hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

using Lab = std::array<double, 3>;

/// A place on the way: the leg from stop `leg` to the next, and how far along it.
struct Place {
  std::size_t leg = 0;
  double part = 0;
};

Lab lab_at(const Place& place) {
  Lab out;
  const Lab &a = kHeatStops[place.leg], &b = kHeatStops[place.leg + 1];
  for (std::size_t c = 0; c < 3; ++c) out[c] = a[c] + place.part * (b[c] - a[c]);
  return out;
}

/// The next place whose straight distance from here is `step`, or nothing when the way ends before.
/// On a leg that distance only grows, so bisection finds it.
std::optional<Place> advance(const Place& here, double step) {
  const Lab from = lab_at(here);
  for (std::size_t leg = here.leg; leg + 1 < kHeatStops.size(); ++leg) {
    if (distance(from, kHeatStops[leg + 1]) < step) continue;
    double low = leg == here.leg ? here.part : 0, high = 1;
    for (int i = 0; i < 60; ++i) {
      const double middle = (low + high) / 2;
      (distance(from, lab_at({leg, middle})) < step ? low : high) = middle;
    }
    return Place{leg, high};
  }
  return std::nullopt;
}

/// Up to `steps` places, `step` apart from one another; fewer when the way ends before.
std::vector<Lab> walk(std::size_t steps, double step) {
  std::vector<Lab> out{kHeatStops.front()};
  Place place;
  while (out.size() < steps) {
    const auto next = advance(place, step);
    if (!next) break;
    place = *next;
    out.push_back(lab_at(place));
  }
  return out;
}

}  // namespace

Color class_color(std::size_t index) {
  const Space& oklch = spaces::kOklch;
  if (index < kFirstColors.size()) return {&oklch, kFirstColors[index]};
  const std::size_t later = index - kFirstColors.size();
  const double hue = std::fmod(15.0 + kGoldenAngle * static_cast<double>(later), 360.0);
  const std::array<double, 3> lightness{0.70, 0.50, 0.84};
  return {&oklch, {lightness[later % lightness.size()], 0.11, hue}};
}

std::vector<Color> heat_ramp(std::size_t steps) {
  // The longest step that leaves room for all of them ends at the end of the way.
  double low = 0, high = 1;
  for (int i = 0; i < 50; ++i) {
    const double middle = (low + high) / 2;
    (walk(steps, middle).size() < steps ? high : low) = middle;
  }
  std::vector<Color> ramp;
  for (const Lab& lab : walk(steps, low)) ramp.push_back({&spaces::kOklab, lab});
  return ramp;
}

std::string gray_apart_from(const std::vector<std::string>& colors) {
  std::string best;
  double best_distance = -1;
  for (const char* gray : {"#f2f3f2", "#c9cdce", "#9aa0a3", "#71777b", "#4b5155"}) {
    double nearest = std::numeric_limits<double>::infinity();
    for (const std::string& color : colors)
      nearest = std::min(
          nearest, ciede2000(css_color(gray).in(spaces::kLab), css_color(color).in(spaces::kLab)));
    if (nearest > best_distance) best = gray, best_distance = nearest;
  }
  return best;
}

}  // namespace chalcedony
