#include "figure/maps_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/palette/figure_colors.h"
#include "figure/plot/axis.h"
#include "figure/plot/fitted_text.h"
#include "figure/plot/heat_cells.h"
#include "figure/plot/heat_scale.h"
#include "figure/plot/legend.h"
#include "figure/plot/name_tics.h"

namespace chalcedony {
namespace {

constexpr double kRowsHigh = 560, kLowestRow = 26, kHighestRow = 64;  // of the page, in pixels
constexpr std::size_t kMostRows = 60;    // higher pages are not easily seen; rows grow lower then
constexpr std::size_t kMostWithF1 = 12;  // more classes leave room for colors only
constexpr double kMostOfNames = 0.45;    // of the panel they stand in
constexpr double kBesideNames = 16;      // of the page, in pixels
constexpr int kMapNamePoints = 11, kClassNamePoints = 11;
constexpr double kRingsHigh = 0.4;  // of a row, below its dot, so that none hides it
constexpr const char* kDotColor = "#2f6690";
constexpr const char* kBandColor = "#e7dcc4";
constexpr const char* kTogetherColor = "#a5762a";

double percents(double share) { return 100 * share; }

/// Where the axis of accuracies begins: a multiple of ten below all there is to see.
double lowest_percent(const MapsFigure& figure) {
  double low = figure.between ? figure.between->interval.low : 1;
  for (const MapAccuracy& map : figure.maps) {
    if (map.accuracy.overall_interval) low = std::min(low, map.accuracy.overall_interval->low);
    for (const std::optional<double>& ring : map.rings) low = std::min(low, ring.value_or(1));
  }
  return std::max(0.0, 10 * std::floor(percents(low) / 10 - 1e-9));
}

/// Titles of both panels stand in one line, though names stand above one of them only.
void put_title(Plot& plot, const Box& box, const Edges& axes, const char* title) {
  plot.label(box.left + axes.left, box.top + Plot::kPanelTitle / 2, title, Plot::kPanelTitlePoints);
}

std::string ring_color(std::size_t ring) { return css_hex(class_color(ring)); }

/// The rings of one kind, to be drawn with the dots.
std::string plot_of_rings(Plot& plot, const std::vector<MapAccuracy>& maps, std::size_t ring) {
  const double below = 0.5 + kRingsHigh * static_cast<double>(ring + 1) /
                                 static_cast<double>(maps.front().rings.size() + 1);
  std::string places;
  for (std::size_t i = 0; i < maps.size(); ++i)
    if (const std::optional<double>& overall = maps[i].rings[ring])
      places += fmt::format("{:.6g} {:g}\n", percents(*overall), static_cast<double>(i) + below);
  if (places.empty()) return "";
  return fmt::format(", {} using 1:2 with points pt 6 ps 1.1 lw 2.2 lc rgb '{}' notitle",
                     plot.store(places), ring_color(ring));
}

void draw_overall(Plot& plot, const Box& box, Edges axes, const MapsFigure& figure) {
  const std::vector<MapAccuracy>& maps = figure.maps;
  const std::optional<ShareOfUnits>& between = figure.between;
  std::vector<std::string> names;
  std::string dots;
  for (const MapAccuracy& map : maps) names.push_back(map.name);
  const double names_wide =
      std::min(widest_text(names, kMapNamePoints), kMostOfNames * box.width());
  names = fitted_names(names, names_wide, kMapNamePoints);
  axes.left = names_wide + kBesideNames;
  for (std::size_t i = 0; i < maps.size(); ++i) {
    const Accuracy& a = maps[i].accuracy;
    if (a.overall)
      dots += fmt::format("{:.6g} {:g} {:.6g} {:.6g}\n", percents(*a.overall),
                          static_cast<double>(i) + 0.5, percents(a.overall_interval->low),
                          percents(a.overall_interval->high));
  }
  put_title(plot, box, axes, "overall accuracy, percent");
  plot.panel(box, "", axes);
  const double low = lowest_percent(figure);
  plot.line(fmt::format("set xrange [{:g}:100]; set yrange [{}:0]", low, maps.size()));
  plot.line("set xtics " + tic_list(round_tics(low, 100, 6)));
  plot.line(fmt::format("set ytics {} scale 0 font ',{}'; set border 1",
                        name_tics(names, {}, kMostRows), kMapNamePoints));
  if (between)
    plot.line(fmt::format(
        "set object 1 rectangle from {:.6g},0 to {:.6g},{} fs solid 1 noborder fc rgb '{}' behind",
        percents(between->interval.low), percents(between->interval.high), maps.size(),
        kBandColor));
  plot.line(fmt::format("set arrow 1 from {0:.6g},0 to {0:.6g},{1} nohead lw 1.4 lc rgb '{2}'",
                        percents(figure.line), maps.size(), kTogetherColor));
  std::string drawn =
      fmt::format("plot {} using 1:2:3:4 with xerrorbars pt 7 ps 0.9 lw 1.6 lc rgb '{}' notitle",
                  plot.store(dots), kDotColor);
  for (std::size_t r = 0; r < figure.rings.size(); ++r) drawn += plot_of_rings(plot, maps, r);
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
  const bool turned = classes.size() > kMostWithF1;
  const std::vector<std::string> names = names_above(
      classes, inside.width() / static_cast<double>(classes.size()), turned, kClassNamePoints);
  plot.line("unset xtics; unset ytics; set x2tics " + name_tics(names, {}, kMostRows) +
            (turned ? " rotate by 60 left" : "") + " scale 0 font ',11'");
  plot.line(cells.plot_of(plot, 0.46, "noborder"));
  plot.line("unset colorbox; unset x2tics; set xtics auto; set ytics auto");
}

}  // namespace

void add_maps_figure(Plot& plot, const std::filesystem::path& path, const MapsFigure& figure) {
  const auto& between = figure.between;
  const std::string band =
      between ? fmt::format("; band: {:.1f} to {:.1f} %, by how much the maps differ",
                            percents(between->interval.low), percents(between->interval.high))
              : "";
  std::vector<LegendLine> rings;
  for (std::size_t r = 0; r < figure.rings.size(); ++r)
    rings.push_back({figure.rings[r], ring_color(r)});
  const bool turned = figure.classes.size() > kMostWithF1;
  const Edges axes{.top = Plot::kPanelTitle + (turned ? kTurnedNamesAbove : kNamesAbove),
                   .bottom = kTicsBelow};
  const double rows = static_cast<double>(std::min(figure.maps.size(), kMostRows));
  const double row_high = std::clamp(kRowsHigh / rows, kLowestRow, kHighestRow);
  const double legend = rings.empty() ? 0 : legend_height(rings, Plot::kBodyWidth);
  Box body =
      plot.begin(path, figure.title,
                 fmt::format("line: {:.1f} %, {}{}{}", percents(figure.line), figure.line_of, band,
                             rings.empty() ? "" : "; rings: maps of the same pictures"),
                 Plot::page_height(axes.top + rows * row_high + axes.bottom + legend));
  if (!rings.empty()) draw_legend(plot, rings, body.cut_bottom(legend, 0));
  const Box scale = cut_color_scale(body);
  const Box right = body.cut_right(0.45 * body.width(), Plot::kGap);
  draw_overall(plot, body, axes, figure);
  draw_classes(plot, right, axes, scale, figure.classes, figure.maps);
}

}  // namespace chalcedony
