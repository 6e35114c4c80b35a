#include "figure/size_figure.h"

#include <fmt/format.h>

#include <algorithm>

#include "figure/plot/axis.h"
#include "figure/plot/cased_line.h"
#include "figure/plot/legend.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostSteps = 1000;  // of a curve
// Of the page, in pixels.
constexpr double kMostSizeLegend = 300, kSharesWide = 52;

/// Steps up at every diameter, or at some of very many.
std::string rising_curve(const std::vector<double>& diameters) {
  const std::size_t n = diameters.size(), step = n / kMostSteps + 1;
  std::string data = fmt::format("{:.7g} 0\n", diameters.front());
  double share = 0;
  for (std::size_t i = step - 1; i < n; i += step) {
    const double next = 100 * static_cast<double>(i + 1) / static_cast<double>(n);
    data += fmt::format("{0:.7g} {1:.5g}\n{0:.7g} {2:.5g}\n", diameters[i], share, next);
    share = next;
  }
  return data + fmt::format("{:.7g} 100\n", diameters.back());
}

/// Of the diameters of all classes, with some room at both ends.
struct DiameterRange {
  double low, high;
};

DiameterRange range_of(const std::vector<ShownSizes>& classes) {
  constexpr double kRoom = 1.1;
  double least = classes.front().diameters.front(), most = least;
  for (const ShownSizes& one : classes) {
    least = std::min(least, one.diameters.front());
    most = std::max(most, one.diameters.back());
  }
  return {least / kRoom, most * kRoom};
}

std::vector<LegendLine> legend_of(const std::vector<ShownSizes>& classes, const std::string& unit) {
  std::vector<LegendLine> legend;
  for (const ShownSizes& one : classes) {
    const double median = one.diameters[(one.diameters.size() - 1) / 2];
    legend.push_back(
        {.name = one.name,
         .color = one.color,
         .count = fmt::format("{}, median {:.3g} {}",
                              grouped(static_cast<double>(one.diameters.size())), median, unit)});
  }
  return legend;
}

}  // namespace

void add_size_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const std::vector<ShownSizes>& classes, const std::string& unit) {
  Box body = plot.begin(path, "Sizes of the regions of " + name,
                        "percent of the regions of a class whose diameter is at most so large, "
                        "where each is taken for a circle of its area");
  const std::vector<LegendLine> legend = legend_of(classes, unit);
  const double wide = std::min(legend_width(legend), kMostSizeLegend);
  draw_legend(plot, legend, body.cut_right(wide, Plot::kGap));
  const DiameterRange range = range_of(classes);
  plot.panel(body, "", {.left = kSharesWide, .bottom = kAxisBelow});
  plot.line(logarithmic_axis("x", range.low, range.high, 12) + "; set yrange [0:100]");
  plot.line("set xlabel " + literal("diameter in " + unit + " (logarithmic)"));
  plot.line("set ytics " + tic_list({0, 10, 20, 30, 40, 50, 60, 70, 80, 90, 100}));
  std::string curves;
  for (const ShownSizes& one : classes)
    curves +=
        (curves.empty() ? "plot " : ", ") +
        cased_line(plot.store(rising_curve(one.diameters)), {one.color, 2}, {Ink::kFaint, 3.2});
  plot.line(curves);
}

}  // namespace chalcedony
