#include "figure/cluster_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figure/axis.h"
#include "figure/text_lines.h"

namespace chalcedony {
namespace {

constexpr std::size_t kTextColumns = 8;
constexpr double kTextRow = 0.036;
constexpr const char* kCurveColor = "#5b7f9d";
constexpr const char* kMarkColor = "#b5563a";

/// Names and shares of the groups in columns below `top`.
void draw_group_texts(Plot& plot, const std::vector<LegendLine>& groups, double top) {
  const double step = 0.96 / static_cast<double>(kTextColumns);
  for (std::size_t i = 0; i < groups.size(); ++i) {
    const double x = 0.02 + step * static_cast<double>(i % kTextColumns);
    const double y = top - kTextRow * (static_cast<double>(i / kTextColumns) + 0.5);
    plot.swatch({x, x + 0.012, y - 0.010, y + 0.010}, groups[i].color);
    plot.label(x + 0.017, y,
               groups[i].name + fmt::format("  {:.1f} %", groups[i].percent.value_or(0)), 10);
  }
}

std::string point_text(double x, double y) { return fmt::format("{:.10g} {:.10g}\n", x, y); }

}  // namespace

void draw_share_bar(Plot& plot, const Frame& frame, const std::vector<LegendLine>& colors) {
  double left = frame.left;
  for (const LegendLine& color : colors) {
    const double width = (frame.right - frame.left) * color.percent.value_or(0) / 100;
    if (width > 0) plot.swatch({left, left + width, frame.bottom, frame.top}, color.color);
    left += width;
  }
}

void add_cluster_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const std::vector<LegendLine>& groups, const Thumbnail& picture,
                        const Thumbnail& recolored) {
  plot.begin(path, "Groups of colors in " + name,
             "each pixel in the mean color of its group; shares are percent of the counted pixels");
  const double rows = std::ceil(static_cast<double>(groups.size()) / double{kTextColumns});
  const double room = std::min(0.5, 0.11 + kTextRow * rows);
  plot.show({0.02, 0.49, room, 0.87}, "picture", picture);
  const Frame shown = plot.show({0.51, 0.98, room, 0.87}, "recolored", recolored);
  draw_share_bar(plot, {0.02, 0.98, shown.bottom - 0.09, shown.bottom - 0.03}, groups);
  draw_group_texts(plot, groups, shown.bottom - 0.10);
}

void add_criteria_figure(Plot& plot, const std::filesystem::path& path,
                         const std::vector<double>& numbers,
                         const std::vector<CriterionCurve>& curves, const std::string& sentence) {
  plot.begin(path, "How many groups?", "circle: best value; square: where the curve bends");
  const double step = 0.98 / static_cast<double>(curves.size());
  for (std::size_t i = 0; i < curves.size(); ++i) {
    const CriterionCurve& curve = curves[i];
    const double left = 0.02 + step * static_cast<double>(i);
    plot.panel({left + 0.06, left + step - 0.02, 0.24, 0.82}, curve.title);
    plot.line("set xlabel 'number of groups'; set format y '%.4g'");
    plot.line("set xtics " + tic_list(round_tics(numbers.front(), numbers.back(), 10)));
    const auto [low, high] = std::minmax_element(curve.values.begin(), curve.values.end());
    const double margin = 0.06 * std::max(*high - *low, 1e-12 + 1e-6 * std::abs(*high));
    plot.line(fmt::format("set xrange [{:g}:{:g}]; set yrange [{:.10g}:{:.10g}]",
                          numbers.front() - 0.4, numbers.back() + 0.4, *low - margin,
                          *high + margin));
    std::string data;
    for (std::size_t n = 0; n < numbers.size(); ++n)
      data += point_text(numbers[n], curve.values[n]);
    std::string drawing =
        fmt::format("plot {} using 1:2 with linespoints pt 7 ps 0.8 lw 2 lc rgb '{}' notitle",
                    plot.store(data), kCurveColor);
    for (const auto& [place, mark] : {std::pair{curve.best, 6}, std::pair{curve.knee, 4}})
      if (place)
        drawing += fmt::format(", {} using 1:2 with points pt {} ps 2.6 lw 3 lc rgb '{}' notitle",
                               plot.store(point_text(numbers[*place], curve.values[*place])), mark,
                               kMarkColor);
    plot.line(drawing);
    plot.line("set format y '% h'");
  }
  double y = 0.13;
  for (const std::string& text : text_lines(sentence, 120)) {
    plot.label(0.03, y, text, 12);
    y -= 0.04;
  }
}

}  // namespace chalcedony
