#include "figure/disc_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <vector>

#include "core/color/css_color.h"
#include "core/degrees.h"
#include "core/palette/example_color.h"
#include "core/palette/figure_colors.h"
#include "figure/plot/axis.h"
#include "figure/plot/heat_scale.h"
#include "figure/plot/joint_page.h"

namespace chalcedony {
namespace {

constexpr std::size_t kSide = 620;  // of the drawn disc with its ring, in pixels
constexpr double kRingInner = 1.03, kRingOuter = 1.08, kEdge = 1.1;  // in radii of the disc

using Rgb = std::array<std::uint8_t, 3>;

Rgb rgb_of(const Color& color) {
  const auto srgb = color.in(spaces::kSrgb);
  Rgb rgb{};
  for (std::size_t c = 0; c < 3; ++c)
    rgb[c] = static_cast<std::uint8_t>(std::lround(std::clamp(srgb[c], 0.0, 255.0)));
  return rgb;
}

/// Colors the pixels of the disc.
class DiscPainter {
 public:
  DiscPainter(const Channel& hue, const JointHistogram& joint, bool linear)
      : hue_(hue), joint_(joint), linear_(linear), paper_(rgb_of(css_color(Ink::kPaper))) {
    for (const Color& color : heat_ramp(256)) ramp_.push_back(rgb_of(color));
    for (std::size_t a = 0; a < joint.first().bins(); ++a)
      for (std::size_t b = 0; b < joint.second().bins(); ++b)
        highest_ = std::max(highest_, joint.count(a, b));
  }

  std::uint64_t highest() const { return highest_; }

  std::vector<std::uint8_t> rgb() const {
    std::vector<std::uint8_t> bytes;
    bytes.reserve(kSide * kSide * 3);
    for (std::size_t y = 0; y < kSide; ++y)
      for (std::size_t x = 0; x < kSide; ++x) {
        const Rgb color = at(position(x), -position(y));
        bytes.insert(bytes.end(), color.begin(), color.end());
      }
    return bytes;
  }

 private:
  /// The middle of a pixel in radii of the disc.
  static double position(std::size_t i) {
    return kEdge * (2 * (static_cast<double>(i) + 0.5) / static_cast<double>(kSide) - 1);
  }

  Rgb at(double x, double y) const {
    const double radius = std::hypot(x, y);
    const double degrees = direction(y, x);
    if (radius > kRingInner && radius < kRingOuter) {
      const auto color = example_color(hue_, degrees);
      return color ? rgb_of(*color) : paper_;
    }
    if (radius > 1) return paper_;
    const Binning& second = joint_.second();
    const std::int32_t a = joint_.first().bin_of(static_cast<float>(degrees));
    const std::int32_t b =
        second.bin_of(static_cast<float>(second.low() + radius * (second.high() - second.low())));
    if (a < 0 || b < 0) return ramp_.front();
    return color_of(joint_.count(static_cast<std::size_t>(a), static_cast<std::size_t>(b)));
  }

  Rgb color_of(std::uint64_t count) const {
    return ramp_[static_cast<std::size_t>(
        std::lround(255 * heat_of_count(count, highest_, linear_)))];
  }

  const Channel& hue_;
  const JointHistogram& joint_;
  bool linear_;
  Rgb paper_;
  std::vector<Rgb> ramp_;
  std::uint64_t highest_ = 1;
};

/// The degrees around the disc, and along its radius what the distance from the center means.
void label_disc(Plot& plot, const Channel& second, const Binning& axis) {
  int label = 30, object = 30;
  plot.line(fmt::format("set style textbox opaque noborder margins 0.4,0.3 fillcolor rgb '{}'",
                        Ink::kText));
  for (int degrees = 0; degrees < 360; degrees += 30) {
    const double angle = radians(degrees);
    plot.line(
        fmt::format("set label {} '{}°' at {:.5f},{:.5f} center front font ',11' textcolor "
                    "rgb '{}'",
                    label++, degrees, 1.19 * std::cos(angle), 1.19 * std::sin(angle), Ink::kText));
  }
  for (const double value : round_tics(axis.low(), axis.high(), 4)) {
    const double radius = (value - axis.low()) / (axis.high() - axis.low());
    if (radius < 0.05 || radius > 0.95) continue;
    // Light dots on a dark line are seen on every color of the heat.
    for (const auto& [color, dashes] : {std::pair{Ink::kText, "1"}, {Ink::kPaper, "3"}})
      plot.line(
          fmt::format("set object {} circle at 0,0 size {:.5f} fs empty border lc rgb '{}' dt {} "
                      "lw 1 front",
                      object++, radius, color, dashes));
    plot.line(fmt::format(
        "set label {} '{}' at {:.5f},{:.5f} center front boxed font ',10' textcolor rgb '{}'",
        label++, grouped(value), radius * std::cos(-0.26), radius * std::sin(-0.26), Ink::kPaper));
  }
  plot.line(fmt::format("set label {} {} at 0,-1.32 center front font ',11' textcolor rgb '{}'",
                        label, literal("from the center: " + axis_title(second)), Ink::kText));
}

}  // namespace

void add_disc_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const Channel& first, const Channel& second, const JointHistogram& joint,
                     const Thumbnail& picture, bool linear_heat) {
  const JointPage page = begin_joint_page(plot, path, "Hues of " + name, joint,
                                          "; around the disc: " + axis_title(first));
  plot.show(page.picture, "", picture);
  const DiscPainter painter(first, joint, linear_heat);
  plot.panel(page.histogram);
  plot.line("unset border; unset tics; unset grid; set size ratio -1");
  plot.line("set xrange [-1.35:1.35]; set yrange [-1.35:1.35]");
  label_disc(plot, second, joint.second());
  set_count_colors(plot, painter.highest(), linear_heat);
  plot.color_scale(page.scale);
  const double step = 2 * kEdge / static_cast<double>(kSide);
  // Points outside the axes make gnuplot draw the color bar of a picture that has colors itself.
  plot.line(fmt::format(
      "plot {} binary array=({},{}) dx={:.8g} dy={:.8g} origin=({:.8g},{:.8g}) "
      "flipy format='%uchar' with rgbimage notitle, "
      "'+' using (9):(9):(1) every ::0::0 with points lc palette notitle",
      plot.store(painter.rgb()), kSide, kSide, step, step, -kEdge + step / 2, -kEdge + step / 2));
  plot.line("unset colorbox; unset logscale; unset cblabel; set size noratio");
}

}  // namespace chalcedony
