#include "core/color/ciede2000.h"

#include <cmath>
#include <numbers>

namespace chalcedony {
namespace {

constexpr double kRadians = std::numbers::pi / 180.0;

double hue_degrees(double b, double a) {
  if (a == 0 && b == 0) return 0;
  const double h = std::atan2(b, a) / kRadians;
  return h < 0 ? h + 360 : h;
}

/// c^7 / (c^7 + 25^7), which says how blue-violet and chromatic a pair is.
double chroma_weight(double c) {
  const double c7 = std::pow(c, 7);
  return c7 / (c7 + 6103515625.0);
}

/// Signed difference of two hues, on the shorter way round; 0 when one of them is gray.
double hue_step(double h1, double h2, double chroma_product) {
  if (chroma_product == 0) return 0;
  const double step = h2 - h1;
  if (step > 180) return step - 360;
  if (step < -180) return step + 360;
  return step;
}

/// Mean of two hues on the shorter way round; the sum when one of them is gray.
double hue_mean(double h1, double h2, double chroma_product) {
  if (chroma_product == 0) return h1 + h2;
  if (std::abs(h1 - h2) <= 180) return (h1 + h2) / 2;
  return h1 + h2 < 360 ? (h1 + h2 + 360) / 2 : (h1 + h2 - 360) / 2;
}

}  // namespace

double ciede2000(const std::array<double, 3>& lab1, const std::array<double, 3>& lab2) {
  const double mean_c = (std::hypot(lab1[1], lab1[2]) + std::hypot(lab2[1], lab2[2])) / 2;
  const double g = 0.5 * (1 - std::sqrt(chroma_weight(mean_c)));
  const double a1 = (1 + g) * lab1[1], a2 = (1 + g) * lab2[1];
  const double c1 = std::hypot(a1, lab1[2]), c2 = std::hypot(a2, lab2[2]);
  const double h1 = hue_degrees(lab1[2], a1), h2 = hue_degrees(lab2[2], a2);

  const double dl = lab2[0] - lab1[0];
  const double dc = c2 - c1;
  const double dh = 2 * std::sqrt(c1 * c2) * std::sin(hue_step(h1, h2, c1 * c2) / 2 * kRadians);

  const double l = (lab1[0] + lab2[0]) / 2, c = (c1 + c2) / 2;
  const double h = hue_mean(h1, h2, c1 * c2);
  const double t = 1 - 0.17 * std::cos((h - 30) * kRadians) + 0.24 * std::cos(2 * h * kRadians) +
                   0.32 * std::cos((3 * h + 6) * kRadians) -
                   0.20 * std::cos((4 * h - 63) * kRadians);
  const double l50 = (l - 50) * (l - 50);
  const double sl = 1 + 0.015 * l50 / std::sqrt(20 + l50);
  const double sc = 1 + 0.045 * c;
  const double sh = 1 + 0.015 * c * t;
  const double turn = 30 * std::exp(-((h - 275) / 25) * ((h - 275) / 25));
  const double rt = -std::sin(2 * turn * kRadians) * 2 * std::sqrt(chroma_weight(c));

  const double pl = dl / sl, pc = dc / sc, ph = dh / sh;
  return std::sqrt(pl * pl + pc * pc + ph * ph + rt * pc * ph);
}

}  // namespace chalcedony
