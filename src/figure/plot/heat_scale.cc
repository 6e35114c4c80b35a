#include "figure/plot/heat_scale.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <vector>

#include "core/palette/figure_colors.h"
#include "figure/plot/axis.h"

namespace chalcedony {
namespace {

constexpr double kCountFloor = 0.5;  // of a logarithmic scale: one pixel differs from none
constexpr double kColorScaleRoom = 116, kColorScaleWide = 23;  // of the page, in pixels

/// What the end of the scale stands for: not too near to its beginning.
double top_of_counts(std::uint64_t highest) {
  return static_cast<double>(std::max<std::uint64_t>(highest, 10));
}

}  // namespace

void set_heat_scale(Plot& plot) {
  std::string colors;
  const auto ramp = heat_ramp(17);
  for (std::size_t i = 0; i < ramp.size(); ++i)
    colors += fmt::format("{}{:.4f} '{}'", i ? ", " : "",
                          static_cast<double>(i) / static_cast<double>(ramp.size() - 1),
                          css_hex(ramp[i]));
  plot.line("set palette defined (" + colors + ")");
}

double heat_of_count(std::uint64_t pixels, std::uint64_t highest, bool linear) {
  if (pixels == 0) return 0;
  const double count = static_cast<double>(pixels), top = top_of_counts(highest);
  return linear ? count / top : std::log(count / kCountFloor) / std::log(top / kCountFloor);
}

void set_count_colors(Plot& plot, std::uint64_t highest, bool linear) {
  set_heat_scale(plot);
  const double top = top_of_counts(highest);
  std::vector<double> tics;
  if (linear) {
    plot.line(fmt::format("set cbrange [0:{:.9g}]; set format cb ''", top));
    tics = round_tics(0, top, 6);
  } else {
    plot.line(fmt::format("set cbrange [{:g}:{:.9g}]; set logscale cb; set format cb ''",
                          kCountFloor, top));
    for (double t = 1; t <= static_cast<double>(highest); t *= 10) tics.push_back(t);
  }
  plot.line("set cbtics " + tic_list(tics) + " font ',11' textcolor rgb '" + Ink::kText + "'");
  plot.line(std::string("set cblabel 'pixels per bin") + (linear ? "" : ", logarithmic") +
            "' offset 1.2,0");
}

Box cut_color_scale(Box& box) {
  return box.cut_right(kColorScaleRoom, Plot::kGap).cut_left(kColorScaleWide);
}

}  // namespace chalcedony
