#include "demo/panel.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "core/color/srgb.h"
#include "demo/linear_light.h"
#include "demo/random.h"

namespace chalcedony::demo {
namespace {

// The constants of the scenario. They were fixed before any bound was measured; a change of one
// belongs into CHANGELOG.md.
constexpr std::uint32_t kWidth = 480, kHeight = 360;
constexpr double kGrain = 4;              // standard deviation, of 255
constexpr double kCornerLight = 0.65;     // light in the corners, of the middle
constexpr double kHighlightShare = 0.03;  // of the glass
constexpr double kLeadHalfWidth = 3.2;    // pixels
constexpr double kCorrodedRadius = 54;    // of the quarter circle in one corner
constexpr std::array<double, 3> kWarmCast{1.18, 1.0, 0.72};
constexpr std::uint32_t kBadEdgeColumns = 5;

enum GlassClass : unsigned { kRuby = 1, kCobalt, kAmber, kEmerald, kClear, kLead };

struct Site {
  double x, y;
  unsigned glass;
  double tone;  // brightness of this piece of glass
};

/// Which piece of glass a point lies in, and how far the nearest lead line is.
struct Place {
  unsigned glass = kClear;
  double tone = 1;
  double to_lead = 0;
};

/// A roundel with petals in a field of irregular quarries.
class Design {
 public:
  explicit Design(std::uint64_t seed) {
    Random random(seed * 1000003);
    constexpr int kColumns = 8, kRows = 6;
    for (int r = 0; r < kRows; ++r)
      for (int c = 0; c < kColumns; ++c)
        sites_.push_back({(c + 0.5 + random.uniform(-0.32, 0.32)) * kWidth / kColumns,
                          (r + 0.5 + random.uniform(-0.32, 0.32)) * kHeight / kRows,
                          1 + static_cast<unsigned>(random.next() % 5),
                          random.uniform(0.86, 1.14)});
    petals_turn_ = random.uniform(0, 1);
    for (std::size_t i = 0; i < petal_glass_.size(); ++i)
      petal_glass_[i] = 1 + static_cast<unsigned>((i + random.next() % 2) % 5);
    heart_glass_ = 1 + static_cast<unsigned>(random.next() % 5);
  }

  Place at(double x, double y) const {
    const double dx = x - kWidth / 2.0, dy = y - kHeight / 2.0;
    const double r = std::hypot(dx, dy);
    Place place = r < kRoundel ? in_roundel(dx, dy, r) : in_field(x, y);
    place.to_lead = std::min(place.to_lead, std::abs(r - kRoundel));
    const double to_border = std::min({x, y, kWidth - x, kHeight - y});
    place.to_lead = std::min(place.to_lead, std::max(0.0, to_border - 1.5));
    return place;
  }

 private:
  static constexpr double kRoundel = 104, kHeart = 36;

  Place in_roundel(double dx, double dy, double r) const {
    if (r < kHeart) return {heart_glass_, 1.0, kHeart - r};
    const double turn = std::atan2(dy, dx) / (2 * std::numbers::pi) + 1 + petals_turn_;
    const double part = std::fmod(turn, 1.0) * static_cast<double>(petal_glass_.size());
    const auto petal = static_cast<std::size_t>(part) % petal_glass_.size();
    const double away = std::min(part - std::floor(part), std::ceil(part) - part);
    const double angle = away * 2 * std::numbers::pi / static_cast<double>(petal_glass_.size());
    return {petal_glass_[petal], 0.95 + 0.03 * static_cast<double>(petal % 4),
            std::min(r * std::sin(angle), r - kHeart)};
  }

  Place in_field(double x, double y) const {
    const auto squared = [&](const Site& s) {
      return (s.x - x) * (s.x - x) + (s.y - y) * (s.y - y);
    };
    const Site *nearest = nullptr, *second = nullptr;
    for (const Site& site : sites_) {
      if (!nearest || squared(site) < squared(*nearest)) {
        second = nearest;
        nearest = &site;
      } else if (!second || squared(site) < squared(*second)) {
        second = &site;
      }
    }
    const double apart = std::hypot(nearest->x - second->x, nearest->y - second->y);
    return {nearest->glass, nearest->tone, (squared(*second) - squared(*nearest)) / (2 * apart)};
  }

  std::vector<Site> sites_;
  std::array<unsigned, 8> petal_glass_{};
  unsigned heart_glass_ = kRuby;
  double petals_turn_ = 0;
};

/// How strongly each pixel is covered by a highlight: soft spots until so much of the glass is.
std::vector<float> draw_highlights(const Panel& panel, Random& random) {
  std::vector<float> cover(panel.reference.size());
  std::uint64_t glass = 0, lit = 0;
  for (const std::uint8_t c : panel.reference) glass += c != kLead;
  while (static_cast<double>(lit) < kHighlightShare * static_cast<double>(glass)) {
    const double cx = random.uniform(8, kWidth - 8), cy = random.uniform(8, kHeight - 8);
    const double rx = random.uniform(3, 7), ry = random.uniform(5, 12);
    for (std::uint32_t y = 0; y < kHeight; ++y)
      for (std::uint32_t x = 0; x < kWidth; ++x) {
        const double dx = (x + 0.5 - cx) / rx, dy = (y + 0.5 - cy) / ry;
        const double d = dx * dx + dy * dy;
        const std::size_t i = std::size_t{y} * kWidth + x;
        if (d >= 1 || panel.reference[i] == kLead) continue;
        lit += cover[i] == 0;
        cover[i] = std::max(cover[i], static_cast<float>(std::min(0.85, 1.3 * (1 - d))));
      }
  }
  return cover;
}

/// Where a person would put samples: inside one class, away from highlights and corrosion.
void find_spots(Panel& panel, const std::vector<float>& highlights, Random& random) {
  const auto fits = [&](const SampleSpot& spot, double margin) {
    const int reach = static_cast<int>(std::ceil(spot.radius + margin));
    for (int dy = -reach; dy <= reach; ++dy)
      for (int dx = -reach; dx <= reach; ++dx) {
        if (std::hypot(dx, dy) > spot.radius + margin) continue;
        const int x = static_cast<int>(spot.x) + dx, y = static_cast<int>(spot.y) + dy;
        if (x < 8 || y < 8 || x >= static_cast<int>(kWidth) - 8 ||
            y >= static_cast<int>(kHeight) - 8)
          return false;
        const std::size_t i = static_cast<std::size_t>(y) * kWidth + static_cast<std::size_t>(x);
        if (panel.reference[i] != spot.class_index || highlights[i] > 0) return false;
      }
    return std::hypot(spot.x, spot.y - kHeight) > kCorrodedRadius + 12;
  };
  for (unsigned c = kRuby; c <= kLead; ++c) {
    const bool lead = c == kLead;
    const std::size_t wanted = lead ? 14 : 5;
    std::size_t found = 0;
    for (int attempt = 0; attempt < 60000 && found < wanted; ++attempt) {
      const SampleSpot spot{c, std::floor(random.uniform(0, kWidth)) + 0.5,
                            std::floor(random.uniform(0, kHeight)) + 0.5, lead ? 2.0 : 8.0};
      const bool apart =
          std::all_of(panel.spots.begin(), panel.spots.end(), [&](const SampleSpot& s) {
            return std::hypot(s.x - spot.x, s.y - spot.y) > (lead ? 16 : 24);
          });
      if (!apart || !fits(spot, lead ? 0 : 2)) continue;
      panel.spots.push_back(spot);
      ++found;
    }
  }
}

/// What happened to a piece of glass hangs on its brightness, which tells the pieces apart.
unsigned surveyed_class(const Place& place, Survey survey) {
  if (place.to_lead < kLeadHalfWidth) return kLead;
  const auto fate = static_cast<unsigned>(place.tone * 1000) % 7;
  const bool lost = fate == 2, mended = fate == 5;
  if (lost && survey == Survey::k1954) return 0;
  const bool first_glass = (lost || mended) && survey == Survey::k1911;
  return first_glass ? (place.glass + 1) % kLead + (place.glass + 1) / kLead : place.glass;
}

class Painter {
 public:
  Painter(const PanelPlan& plan, const Design& design) : plan_(plan), design_(design) {
    for (const LegendEntry& entry : glass_legend()) glass_.push_back(linear_light(entry.color));
  }

  /// Light that leaves the panel at a pixel, in linear sRGB of 0-1.
  Linear light(std::uint32_t x, std::uint32_t y, double highlight) const {
    const double px = x + 0.5, py = y + 0.5;
    const Place place = design_.at(px, py);
    const double streak = lattice_noise(px, py * 0.35, 9, plan_.seed + 11);
    const double cloud = lattice_noise(px, py, 40, plan_.seed + 12);
    Linear glass = glass_[place.glass - 1];
    for (double& v : glass) v *= place.tone * (0.94 + 0.06 * streak + 0.06 * cloud);
    glass = mixed_light(glass, {0.93, 0.95, 0.96}, highlight);
    glass = mixed_light(glass, {0.30, 0.25, 0.17}, corrosion(px, py));
    // The edge of the lead is blended over one pixel.
    const double lead = std::clamp(kLeadHalfWidth - place.to_lead + 0.5, 0.0, 1.0);
    Linear out = mixed_light(glass, glass_[kLead - 1], lead);
    const double dx = (px - kWidth / 2.0) / (kWidth / 2.0),
                 dy = (py - kHeight / 2.0) / (kHeight / 2.0);
    const double fall_off = 1 - (1 - kCornerLight) * (dx * dx + dy * dy) / 2;
    for (std::size_t c = 0; c < 3; ++c) out[c] *= fall_off * (plan_.cast ? kWarmCast[c] : 1.0);
    return out;
  }

 private:
  /// A crust in the lower left corner, thinner towards its rim.
  double corrosion(double x, double y) const {
    const double r = std::hypot(x, y - kHeight);
    if (r >= kCorrodedRadius) return 0;
    const double crust = lattice_noise(x, y, 5, plan_.seed + 13);
    return std::clamp((1 - r / kCorrodedRadius) * 1.2 + 0.5 * crust - 0.2, 0.0, 0.75);
  }

  const PanelPlan& plan_;
  const Design& design_;
  std::vector<Linear> glass_;
};

}  // namespace

const std::vector<LegendEntry>& glass_legend() {
  static const std::vector<LegendEntry> legend{
      {kRuby, "ruby", "#a01c2e"},   {kCobalt, "cobalt", "#2243a6"},
      {kAmber, "amber", "#d9921f"}, {kEmerald, "emerald", "#1f8a4c"},
      {kClear, "clear", "#cfd0cd"}, {kLead, "lead", "#3c3d40"}};
  return legend;
}

std::vector<PanelPlan> panel_plans() {
  return {{"panel-a", 101, true, false, false},
          {"panel-b", 202, true, false, false},
          {"panel-c", 303, false, false, false},
          {"panel-d", 404, true, true, true}};
}

std::vector<std::uint8_t> surveyed_glass(const PanelPlan& plan, Survey survey) {
  const Design design(plan.seed);
  std::vector<std::uint8_t> classes;
  for (std::uint32_t y = 0; y < kHeight; ++y)
    for (std::uint32_t x = 0; x < kWidth; ++x)
      classes.push_back(
          static_cast<std::uint8_t>(surveyed_class(design.at(x + 0.5, y + 0.5), survey)));
  return classes;
}

Panel draw_panel(const PanelPlan& plan) {
  Panel panel{kWidth, kHeight, {}, {}, {}};
  const Design design(plan.seed);
  for (std::uint32_t y = 0; y < kHeight; ++y)
    for (std::uint32_t x = 0; x < kWidth; ++x) {
      const Place place = design.at(x + 0.5, y + 0.5);
      panel.reference.push_back(
          static_cast<std::uint8_t>(place.to_lead < kLeadHalfWidth ? kLead : place.glass));
    }
  Random random(plan.seed);
  const std::vector<float> highlights = draw_highlights(panel, random);
  if (plan.samples) find_spots(panel, highlights, random);

  const Painter painter(plan, design);
  for (std::uint32_t y = 0; y < kHeight; ++y) {
    for (std::uint32_t x = 0; x < kWidth; ++x) {
      const Linear light = painter.light(x, y, highlights[std::size_t{y} * kWidth + x]);
      const bool edge = plan.bad_edge && x >= kWidth - kBadEdgeColumns;
      if (edge) panel.reference[std::size_t{y} * kWidth + x] = 0;
      for (const double channel : light)
        panel.rgb.push_back(grainy(edge ? 236 : 255 * srgb_encoded(channel), kGrain, random));
    }
  }
  return panel;
}

}  // namespace chalcedony::demo
