#include "figure/maps_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figure/plot/axis.h"
#include "figure/plot/heat_cells.h"
#include "figure/plot/heat_scale.h"
#include "figure/plot/name_tics.h"

namespace chalcedony {
namespace {

constexpr double kRowsHigh = 560, kLowestRow = 26, kHighestRow = 64;  // of the page, in pixels
constexpr std::size_t kMostRows = 60;    // higher pages are not easily seen; rows grow lower then
constexpr std::size_t kMostWithF1 = 12;  // more classes leave room for colors only
constexpr double kMapNamesWide = 190;
constexpr double kTicsBelow = 34;
constexpr double kRingBelow = 0.74;  // of a row, so that it does not hide the dot
constexpr const char* kDotColor = "#2f6690";
constexpr const char* kRingColor = "#7a4a2b";
constexpr const char* kBandColor = "#e7dcc4";
constexpr const char* kTogetherColor = "#a5762a";

double percents(double share) { return 100 * share; }

/// Where the axis of accuracies begins: a multiple of ten below all there is to see.
double lowest_percent(const std::vector<MapAccuracy>& maps,
                      const std::optional<BetweenMaps>& between) {
  double low = between ? between->interval.low : 1;
  for (const MapAccuracy& map : maps)
    if (map.accuracy.overall_interval)
      low = std::min({low, map.accuracy.overall_interval->low, map.second.value_or(1)});
  return std::max(0.0, 10 * std::floor(percents(low) / 10 - 1e-9));
}

/// Titles of both panels stand in one line, though names stand above one of them only.
void put_title(Plot& plot, const Box& box, const Edges& axes, const char* title) {
  plot.label(box.left + axes.left, box.top + Plot::kPanelTitle / 2, title, Plot::kPanelTitlePoints);
}

void draw_overall(Plot& plot, const Box& box, const Edges& axes,
                  const std::vector<MapAccuracy>& maps, const Accuracy& together,
                  const std::optional<BetweenMaps>& between) {
  std::vector<std::string> names;
  std::string dots, rings;
  for (std::size_t i = 0; i < maps.size(); ++i) {
    names.push_back(maps[i].name);
    const Accuracy& a = maps[i].accuracy;
    if (a.overall)
      dots += fmt::format("{:.6g} {:g} {:.6g} {:.6g}\n", percents(*a.overall),
                          static_cast<double>(i) + 0.5, percents(a.overall_interval->low),
                          percents(a.overall_interval->high));
    if (maps[i].second)
      rings += fmt::format("{:.6g} {:g}\n", percents(*maps[i].second),
                           static_cast<double>(i) + kRingBelow);
  }
  put_title(plot, box, axes, "overall accuracy, percent");
  plot.panel(box, "", axes);
  const double low = lowest_percent(maps, between);
  plot.line(fmt::format("set xrange [{:g}:100]; set yrange [{}:0]", low, maps.size()));
  plot.line("set xtics " + tic_list(round_tics(low, 100, 6)));
  plot.line("set ytics " + name_tics(names, {}, kMostRows) + " scale 0 font ',11'; set border 1");
  if (between)
    plot.line(fmt::format(
        "set object 1 rectangle from {:.6g},0 to {:.6g},{} fs solid 1 noborder fc rgb '{}' behind",
        percents(between->interval.low), percents(between->interval.high), maps.size(),
        kBandColor));
  plot.line(fmt::format("set arrow 1 from {0:.6g},0 to {0:.6g},{1} nohead lw 1.4 lc rgb '{2}'",
                        percents(together.overall.value_or(0)), maps.size(), kTogetherColor));
  std::string drawn =
      fmt::format("plot {} using 1:2:3:4 with xerrorbars pt 7 ps 0.9 lw 1.6 lc rgb '{}' notitle",
                  plot.store(dots), kDotColor);
  if (!rings.empty())
    drawn += fmt::format(", {} using 1:2 with points pt 6 ps 1.1 lw 1.6 lc rgb '{}' notitle",
                         plot.store(rings), kRingColor);
  plot.line(drawn);
  plot.line("unset object 1; unset arrow 1");
}

void draw_classes(Plot& plot, const Box& box, const Edges& axes, const Box& scale,
                  const std::vector<std::string>& classes, const std::vector<MapAccuracy>& maps) {
  const bool with_f1 = classes.size() <= kMostWithF1 && maps.size() <= kMostRows;
  HeatCells cells;
  for (std::size_t i = 0; i < maps.size(); ++i)
    for (std::size_t c = 0; c < classes.size(); ++c) {
      const std::optional<double>& f1 = maps[i].accuracy.classes[c].f1;
      if (!f1) continue;
      const double x = static_cast<double>(c) + 0.5, y = static_cast<double>(i) + 0.5;
      cells.add(x, y, *f1);
      if (with_f1) cells.add_text(x, y, *f1, fmt::format("{:.0f}", percents(*f1)));
    }
  put_title(plot, box, axes, "F1 of each class, percent");
  const Box inside = plot.panel(box, "", axes);
  set_heat_scale(plot);
  plot.color_scale({scale.left, inside.top, scale.right, inside.bottom});
  plot.line("set format cb '%g'; set cbtics ('0' 0, '25' 0.25, '50' 0.5, '75' 0.75, '100' 1)");
  plot.line("unset grid; unset border; unset key; set cbrange [0:1]");
  plot.line(fmt::format("set xrange [0:{0}]; set x2range [0:{0}]; set yrange [{1}:0]",
                        classes.size(), maps.size()));
  plot.line("unset xtics; unset ytics; set x2tics " + name_tics(classes, {}, kMostRows) +
            (classes.size() > kMostWithF1 ? " rotate by 60 left" : "") + " scale 0 font ',11'");
  plot.line(cells.plot_of(plot, 0.46, "noborder"));
  plot.line("unset colorbox; unset x2tics; set xtics auto; set ytics auto");
}

}  // namespace

void add_maps_figure(Plot& plot, const std::filesystem::path& path,
                     const std::vector<std::string>& classes, const std::vector<MapAccuracy>& maps,
                     const Accuracy& together, const std::optional<BetweenMaps>& between) {
  const std::string band =
      between ? fmt::format("; band: {:.1f} to {:.1f} %, by how much the maps differ",
                            percents(between->interval.low), percents(between->interval.high))
              : "";
  const bool turned = classes.size() > kMostWithF1;
  const Edges axes{.top = Plot::kPanelTitle + (turned ? kTurnedNamesAbove : kNamesAbove),
                   .bottom = kTicsBelow};
  const double rows = static_cast<double>(std::min(maps.size(), kMostRows));
  const double row_high = std::clamp(kRowsHigh / rows, kLowestRow, kHighestRow);
  Box body = plot.begin(
      path, fmt::format("Accuracy of {} maps", maps.size()),
      fmt::format("line: {:.1f} %, all maps together{}{}", percents(together.overall.value_or(0)),
                  band, maps.front().second ? "; rings: the second maps" : ""),
      Plot::page_height(axes.top + rows * row_high + axes.bottom));
  const Box scale = cut_color_scale(body);
  const Box right = body.cut_right(0.45 * body.width(), Plot::kGap);
  draw_overall(plot, body, {kMapNamesWide, axes.top, 0, axes.bottom}, maps, together, between);
  draw_classes(plot, right, axes, scale, classes, maps);
}

}  // namespace chalcedony
