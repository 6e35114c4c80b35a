#include "figure/plot/flow_bands.h"

#include <fmt/format.h>

namespace chalcedony {
namespace {

/// An outline to be filled, with sides that leave and arrive level.
std::string outline_of(const FlowBand& band) {
  constexpr int kSteps = 24;
  std::string points;
  const auto add = [&](double t, double below) {
    const double s = t * t * (3 - 2 * t);
    points += fmt::format("{:.5f} {:.5f}\n", band.left + (band.right - band.left) * t,
                          band.from + (band.to - band.from) * s + below);
  };
  for (int i = 0; i <= kSteps; ++i) add(double(i) / kSteps, 0);
  for (int i = kSteps; i >= 0; --i) add(double(i) / kSteps, band.height);
  return points;
}

}  // namespace

void draw_flow_bands(Plot& plot, const Box& box, const std::vector<FlowBand>& bands) {
  if (bands.empty()) return;
  plot.panel(box);
  plot.line("unset border; unset tics; unset grid");
  plot.line(fmt::format("set xrange [{}:{}]; set yrange [{}:{}]", box.left, box.right, box.bottom,
                        box.top));
  std::string drawing;
  for (const FlowBand& band : bands)
    drawing += (drawing.empty() ? "plot " : ", ") +
               fmt::format(
                   "{} using 1:2 with filledcurves closed fs transparent solid {:g} "
                   "noborder lc rgb '{}' notitle",
                   plot.store(outline_of(band)), band.opacity, band.color);
  plot.line(drawing);
}

}  // namespace chalcedony
