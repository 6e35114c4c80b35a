#include "figure/spot_lines.h"

#include <fmt/format.h>

#include <algorithm>
#include <string>

#include "figure/plot/axis.h"
#include "figure/plot/cased_line.h"
#include "figure/plot/fitted_text.h"

namespace chalcedony {
namespace {

// Of the page, in pixels.
constexpr double kLineNames = 150, kLineNameGap = 8, kLineNameHigh = 17, kDeltaAxis = 64;
constexpr int kLineNamePoints = 11;
constexpr double kRoomAbove = 1.06;  // of the axis, above the farthest spot
constexpr const char* kSteadyBand = "#e7e3d8";

double farthest(const SpotSeries& series, const std::vector<std::size_t>& spots) {
  double most = 1;  // differences below that are seen by nobody
  for (const std::size_t s : spots)
    for (const SeenSpot& seen : series.seen[s]) most = std::max(most, seen.delta_e.value_or(0));
  for (const std::optional<double>& steady : series.steady)
    most = std::max(most, steady.value_or(0));
  return most;
}

/// A spot in the picture it is held against lies on the axis.
double height_of(const SeenSpot& seen) { return seen.delta_e.value_or(0); }

/// Where it is not in a picture, the line has a gap.
std::string line_data(const std::vector<SeenSpot>& seen) {
  std::string data;
  for (std::size_t p = 0; p < seen.size(); ++p)
    data += seen[p].color.empty() ? "\n" : fmt::format("{} {:.6g}\n", p + 1, height_of(seen[p]));
  return data;
}

std::string steady_data(const SpotSeries& series) {
  std::string data;
  for (std::size_t p = 0; p < series.steady.size(); ++p)
    if (series.steady[p]) data += fmt::format("{} {:.6g}\n", p + 1, *series.steady[p]);
  return data;
}

/// Of the first picture that has it.
std::string color_of(const std::vector<SeenSpot>& seen) {
  const auto first = std::find_if(seen.begin(), seen.end(),
                                  [](const SeenSpot& one) { return !one.color.empty(); });
  return first == seen.end() ? Ink::kFaint : first->color;
}

struct EndName {
  double y;  // of the page
  std::string name;
};

/// Moves names apart that would lie on each other, within a box.
void set_apart(std::vector<EndName>& names, const Box& box) {
  std::stable_sort(names.begin(), names.end(),
                   [](const EndName& a, const EndName& b) { return a.y < b.y; });
  for (std::size_t i = 1; i < names.size(); ++i)
    names[i].y = std::max(names[i].y, names[i - 1].y + kLineNameHigh);
  double lowest = box.bottom;
  for (std::size_t i = names.size(); i > 0; --i, lowest -= kLineNameHigh)
    names[i - 1].y = std::min(names[i - 1].y, lowest);
}

void name_lines(Plot& plot, const Box& axes, const SpotSeries& series,
                const std::vector<std::size_t>& spots, double top) {
  std::vector<EndName> names;
  for (const std::size_t s : spots) {
    const SeenSpot& last = series.seen[s].back();
    names.push_back({axes.bottom - axes.height() * height_of(last) / top, series.spots[s]});
  }
  set_apart(names, axes);
  for (const EndName& name : names)
    plot.label(axes.right + kLineNameGap, name.y,
               fitted_text(name.name, kLineNames - kLineNameGap, kLineNamePoints), kLineNamePoints);
}

}  // namespace

void draw_spot_lines(Plot& plot, Box body, const SpotSeries& series,
                     const std::vector<std::size_t>& spots) {
  const double top = kRoomAbove * farthest(series, spots);
  const Edges edges{.left = kDeltaAxis, .right = kLineNames, .bottom = kAxisBelow};
  const Box axes =
      Box{body.left, body.top + Plot::kPanelTitle, body.right, body.bottom}.inside(edges);
  name_lines(plot, axes, series, spots, top);
  plot.panel(body, "delta E 2000", edges);
  plot.line("set xlabel 'picture, in the order of the inputs'");
  plot.line(fmt::format("set xrange [1:{}]; set yrange [0:{:.6g}]", series.pictures.size(), top));
  plot.line("set xtics " +
            tic_list(round_tics(1, static_cast<double>(series.pictures.size()), 12)));
  plot.line("set ytics " + tic_list(round_tics(0, top, 8)));
  std::string drawing = "plot ";
  if (const std::string steady = steady_data(series); !steady.empty())
    drawing += fmt::format("{} using 1:2 with filledcurves y1=0 fc rgb '{}' notitle, ",
                           plot.store(steady), kSteadyBand);
  for (const std::size_t s : spots)
    drawing += (s == spots.front() ? "" : ", ") + cased_line(plot.store(line_data(series.seen[s])),
                                                             {color_of(series.seen[s]), 2.6},
                                                             {Ink::kFaint, 4.2});
  plot.line(drawing);
}

}  // namespace chalcedony
