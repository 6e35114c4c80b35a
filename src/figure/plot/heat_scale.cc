#include "figure/plot/heat_scale.h"

#include <fmt/format.h>

#include <algorithm>
#include <vector>

#include "core/palette/figure_colors.h"
#include "figure/plot/axis.h"

namespace chalcedony {
namespace {

constexpr double kColorScaleRoom = 116, kColorScaleWide = 23;  // of the page, in pixels

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

void set_count_colors(Plot& plot, std::uint64_t highest, bool linear) {
  set_heat_scale(plot);
  const double top = static_cast<double>(std::max<std::uint64_t>(highest, 10));
  std::vector<double> tics;
  if (linear) {
    plot.line(fmt::format("set cbrange [0:{:.9g}]; set format cb ''", top));
    tics = round_tics(0, top, 6);
  } else {
    plot.line(fmt::format("set cbrange [1:{:.9g}]; set logscale cb; set format cb ''", top));
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
