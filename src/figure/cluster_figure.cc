#include "figure/cluster_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figure/plot/axis.h"
#include "figure/plot/picture_pair.h"
#include "figure/plot/text_lines.h"

namespace chalcedony {
namespace {

constexpr double kLargest = 1e5;   // beyond it values are shown in thousands
constexpr double kCurveAxis = 60;  // tics without a title, in pixels of the page
constexpr const char* kCurveColor = "#5b7f9d";
constexpr const char* kMarkColor = "#b5563a";

std::string point_text(double x, double y) { return fmt::format("{:.10g} {:.10g}\n", x, y); }

}  // namespace

void add_cluster_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const std::vector<LegendLine>& groups, const Thumbnail& picture,
                        const Thumbnail& recolored) {
  draw_pair(plot, path, "Groups of colors in " + name,
            "each pixel in the mean color of its group; shares are percent of the counted pixels",
            {"picture", picture, "recolored", recolored}, groups, PairBar::kShares);
}

void add_criteria_figure(Plot& plot, const std::filesystem::path& path,
                         const std::vector<double>& numbers,
                         const std::vector<CriterionCurve>& curves, const std::string& sentence) {
  Box body =
      plot.begin(path, "How many groups?", "circle: best value; square: where the curve bends");
  const auto lines = text_lines(sentence, 146);
  Box text = body.cut_bottom(kTextRow * static_cast<double>(lines.size()), Plot::kGap);
  const auto columns = columns_of(body, curves.size(), Plot::kGap);
  for (std::size_t i = 0; i < curves.size(); ++i) {
    const CriterionCurve& curve = curves[i];
    const auto [least, most] = std::minmax_element(curve.values.begin(), curve.values.end());
    const bool large = std::max(-*least, *most) >= kLargest;
    const double unit = large ? 1000 : 1;
    plot.panel(columns[i], curve.title + (large ? ", thousands" : ""),
               {.left = kCurveAxis, .bottom = kAxisBelow});
    plot.line("set xlabel 'number of groups'");
    plot.line("set xtics " + tic_list(whole_tics(numbers.front(), numbers.back(), 10)));
    const double low = *least / unit, high = *most / unit;
    const double margin = 0.06 * std::max(high - low, 1e-12 + 1e-6 * std::abs(high));
    plot.line(fmt::format("set xrange [{:g}:{:g}]; set yrange [{:.10g}:{:.10g}]",
                          numbers.front() - 0.4, numbers.back() + 0.4, low - margin,
                          high + margin));
    plot.line("set ytics " + tic_list(round_tics(low - margin, high + margin, 8)));
    std::string data;
    for (std::size_t n = 0; n < numbers.size(); ++n)
      data += point_text(numbers[n], curve.values[n] / unit);
    std::string drawing =
        fmt::format("plot {} using 1:2 with linespoints pt 7 ps 0.8 lw 2 lc rgb '{}' notitle",
                    plot.store(data), kCurveColor);
    for (const auto& [place, mark] : {std::pair{curve.best, 6}, std::pair{curve.knee, 4}})
      if (place)
        drawing += fmt::format(", {} using 1:2 with points pt {} ps 2.6 lw 3 lc rgb '{}' notitle",
                               plot.store(point_text(numbers[*place], curve.values[*place] / unit)),
                               mark, kMarkColor);
    plot.line(drawing);
  }
  for (const std::string& line : lines)
    plot.label(text.left, text.cut_top(kTextRow).middle(), line, 12);
}

}  // namespace chalcedony
