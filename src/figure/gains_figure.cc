#include "figure/gains_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstddef>

#include "figure/plot/axis.h"
#include "figure/plot/picture_rows.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostDots = 400;  // of a row
// Of the page, in pixels.
constexpr double kGainRowHigh = 38, kLeastGainRowHigh = 22, kGainRowsHigh = 500, kBetweenSteps = 14;
// Of a row.
constexpr double kLimitsHigh = 0.44, kAllHigh = 0.7, kDotsHigh = 0.5;
constexpr const char* kLimitsColor = "#c9d3db";

/// The changes of all steps, with some room at both ends; 0 is among them.
Interval limits_of(const GainsFigure& figure) {
  Interval out{0, 0};
  const auto hold = [&](double value) {
    out = {std::min(out.low, value), std::max(out.high, value)};
  };
  for (const GainsFigure::Step& step : figure.steps)
    for (const GainsFigure::Gains& gains : step.of) {
      for (const double change : gains.in_places) hold(change);
      if (gains.limits) {
        hold(gains.limits->low);
        hold(gains.limits->high);
      }
    }
  if (out.low == out.high) out = {-1, 1};
  const double room = 0.04 * (out.high - out.low);
  return {out.low - room, out.high + room};
}

/// Where the dot of a place is in its row, so that those of like changes are seen side by side.
double height_in_row(std::size_t place) {
  constexpr std::size_t kHeights = 7, kStride = 3;
  const auto at = static_cast<double>(place * kStride % kHeights);
  return 0.5 + kDotsHigh * (at / (kHeights - 1) - 0.5);
}

/// The dots of a class in its color, with an edge that is seen in every color.
std::string plot_of_dots(Plot& plot, const std::vector<double>& changes, std::size_t row,
                         const std::string& color) {
  std::string dots;
  for (std::size_t p = 0; p < std::min(changes.size(), kMostDots); ++p)
    dots += fmt::format("{:.7g} {:.4g}\n", changes[p], static_cast<double>(row) + height_in_row(p));
  const std::string stored = plot.store(dots);
  return fmt::format(
      "{0} using 1:2 with points pt 7 ps 1 lc rgb '{1}' notitle, {0} using 1:2 with points pt 7 ps "
      "0.75 lc rgb '{2}' notitle",
      stored, Ink::kText, color);
}

void draw_gains(Plot& plot, const GainsFigure& figure, const GainsFigure::Step& step) {
  const std::size_t rows = figure.classes.size();
  std::string limits, all, dots;
  for (std::size_t c = 0; c < rows; ++c) {
    const GainsFigure::Gains& gains = step.of[c];
    const double middle = static_cast<double>(c) + 0.5;
    if (gains.limits)
      limits += bar_data({gains.limits->low, gains.limits->high, middle - kLimitsHigh / 2,
                          middle + kLimitsHigh / 2});
    all += fmt::format("{0:.7g} {1:.4g}\n{0:.7g} {2:.4g}\n\n", gains.of_all, middle - kAllHigh / 2,
                       middle + kAllHigh / 2);
    dots += ", " + plot_of_dots(plot, gains.in_places, c, figure.classes[c].color);
  }
  std::string drawn = fmt::format("plot {} using 1:2 with lines lw 1.2 dt 2 lc rgb '{}' notitle",
                                  plot.store(fmt::format("0 0\n0 {}\n", rows)), Ink::kText);
  if (!limits.empty()) drawn += ", " + plot_of_bars(plot, limits, kLimitsColor);
  drawn += dots + fmt::format(", {} using 1:2 with lines lw 2.4 lc rgb '{}' notitle",
                              plot.store(all), Ink::kText);
  plot.line(drawn);
}

}  // namespace

void add_gains_figure(Plot& plot, const std::filesystem::path& path, const GainsFigure& figure) {
  const std::size_t rows = figure.classes.size(), steps = figure.steps.size(),
                    places = figure.steps.front().of.front().in_places.size();
  std::vector<std::string> names;
  for (const LegendLine& one : figure.classes) names.push_back(one.name);
  const double row_high = std::clamp(kGainRowsHigh / static_cast<double>(rows * steps),
                                     kLeastGainRowHigh, kGainRowHigh);
  const double rows_high =
      Plot::kPanelTitle + row_high * static_cast<double>(std::min(rows, kMostNamedRows));
  std::string subtitle =
      "dots: each place; lines: all together; bars: limits of 95 % for places like them";
  if (places > kMostDots)
    subtitle += fmt::format("; dots of the first {} of {}", kMostDots, places);
  Box body = plot.begin(
      path, figure.title, subtitle,
      Plot::page_height((rows_high + kTicsBelow + kBetweenSteps) * static_cast<double>(steps) +
                        kAxisBelow - kTicsBelow - kBetweenSteps));
  const double names_wide = row_names_wide(names, body.width());
  const Interval limits = limits_of(figure);
  for (const GainsFigure::Step& step : figure.steps) {
    const bool last = &step == &figure.steps.back();
    const double below = last ? kAxisBelow : kTicsBelow;
    plot.panel(body.cut_top(rows_high + below, kBetweenSteps), step.title,
               {.left = names_wide, .bottom = below});
    plot.line(
        fmt::format("set xrange [{:.7g}:{:.7g}]; set yrange [{}:0]; set border 1; set grid "
                    "noytics",
                    limits.low, limits.high, rows));
    if (last) plot.line("set xlabel " + literal("change of the share, percentage points"));
    name_rows(plot, names, names_wide);
    draw_gains(plot, figure, step);
  }
}

}  // namespace chalcedony
