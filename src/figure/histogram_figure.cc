#include "figure/histogram_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>
#include <optional>

#include "figure/plot/axis.h"
#include "figure/plot/axis_strip.h"
#include "io/text/number_text.h"

namespace chalcedony {
namespace {

// Of the page, in pixels.
constexpr double kNumberRoom = 22;  // the number of a peak, above the curves
constexpr double kKeyRow = 19;      // a row of the names above a panel
constexpr double kStrip = 9;        // a strip of example colors and the gap below it
constexpr double kStripGap = 2;
constexpr double kKeyGap = 4;     // between the names and what is below them
constexpr double kPanelGap = 12;  // between an axis and what stands below it
constexpr double kLeastCurves = 70;
constexpr double kCountAxis = 112;  // an upright axis with numbers of up to seven digits

/// In one row, or where that has no room in two columns.
std::size_t key_columns(std::size_t names) { return names <= 3 ? 3 : 2; }

/// The peaks of the members as bands over the whole height, numbered for each channel.
void mark_bands(Plot& plot, const Box& curves, const std::vector<HistogramSeries>& series,
                const SeriesPlaces& members) {
  const double middle = 1 - kNumberRoom / 2 / curves.height();
  int object = 20;
  for (const std::size_t s : members)
    for (std::size_t p = 0; p < series[s].peaks.size(); ++p) {
      const PeakMark& peak = series[s].peaks[p];
      for_each_piece(
          peak.interval[0], series[s].histogram->binning(), [&](double low, double high) {
            plot.line(
                fmt::format("set object {} rectangle from {:.9g},graph 0 to {:.9g},graph 1 "
                            "fillcolor rgb '{}' fillstyle transparent solid 0.18 noborder behind",
                            object, low, high, peak.color));
            plot.line(
                fmt::format("set label {} '{}' at {:.9g},graph {:.5f} center front font ',11' "
                            "textcolor rgb '{}'",
                            object++, p + 1, (low + high) / 2, middle, Ink::kText));
          });
    }
}

/// Draws curves, with their names above that end at the lower right corner of a box for them.
/// Returns the box of the curves.
Box draw_panel(Plot& plot, const Box& box, const std::vector<HistogramSeries>& series,
               const SeriesPlaces& members, const CountAxis& counts, const Box& names) {
  const HistogramSeries& first = series[members.front()];
  const Binning& binning = first.histogram->binning();
  const Box inner = plot.panel(box, {}, {.left = kCountAxis, .bottom = kAxisBelow});
  mark_bands(plot, inner, series, members);
  plot.line(fmt::format("set xrange [{:.9g}:{:.9g}]", binning.low(), binning.high()));
  const bool numbered = std::any_of(members.begin(), members.end(),
                                    [&](std::size_t m) { return !series[m].peaks.empty(); });
  plot.line("set ylabel '" + counts.title() + "' offset -1.5,0");
  set_count_range(plot, first,
                  {.counts = counts,
                   .highest = highest_bin(series, members, counts),
                   .high = inner.height(),
                   .above = numbered ? kNumberRoom : 0});
  plot.line("set xtics " + channel_tics(first.channel, binning, 8));
  plot.line("set xlabel " + literal(shared_axis_title(series, members)) + " offset 0,0.3");
  // gnuplot takes the letters of long names for wider than they are.
  plot.line(
      fmt::format("set key at {} right bottom horizontal maxcols {} samplen 2 width -2.5 "
                  "textcolor rgb '{}' font ',11'",
                  plot.place(names.right, names.bottom), key_columns(members.size()), Ink::kText));
  plot.line("plot " + histogram_curves(plot, series, members, counts, CurveNames::kMedians));
  return inner;
}

/// The strips of example colors, from the bottom of a box up.
void draw_strips(Plot& plot, Box box, const std::vector<HistogramSeries>& series,
                 const SeriesPlaces& members) {
  for (const std::size_t m : members) {
    const Binning& binning = series[m].histogram->binning();
    Box above = box;
    const Box strip = above.cut_bottom(kStrip).inside({.bottom = kStripGap});
    if (draw_axis_strip(plot, strip, series[m].channel, binning.low(), binning.high())) box = above;
  }
}

/// Pixels that the strips and the names above a panel take.
double strips_height(const SeriesPlaces& members) {
  return kStrip * static_cast<double>(members.size()) + kKeyGap;
}
double names_height(const SeriesPlaces& members) {
  const std::size_t columns = key_columns(members.size());
  return kKeyRow * static_cast<double>((members.size() + columns - 1) / columns);
}

}  // namespace

void draw_histogram_panel(Plot& plot, Box box, const std::vector<HistogramSeries>& series,
                          const CountAxis& counts) {
  SeriesPlaces all(series.size());
  std::iota(all.begin(), all.end(), std::size_t{0});
  const Box names = box.cut_top(names_height(all), kKeyGap);
  draw_panel(plot, box, series, all, counts, names);
}

void add_histogram_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                          const std::vector<HistogramSeries>& series, const CountAxis& counts,
                          const Thumbnail& picture) {
  const auto panels = panels_of(series);
  double around = 0;  // the curves of all panels
  for (const auto& members : panels)
    around += names_height(members) + strips_height(members) + kAxisBelow + kPanelGap;
  const auto count = static_cast<double>(panels.size());
  Box body =
      plot.begin(path, "Channel histograms of " + name,
                 fmt::format("{} counted pixels{}",
                             grouped(static_cast<double>(series.front().histogram->total())),
                             counts.logarithmic ? "; the axes of counts are logarithmic" : ""),
                 std::max(Plot::kHeight, Plot::page_height(around + count * kLeastCurves)));
  Box left = body.cut_left(Plot::kPictureBeside, Plot::kGap);
  // In line with the curves of the first panel.
  left.top += names_height(panels.front()) + strips_height(panels.front());
  std::vector<PeakMark> peaks;
  for (const HistogramSeries& s : series) peaks.insert(peaks.end(), s.peaks.begin(), s.peaks.end());
  show_with_peaks(plot, left, picture, peaks);
  const double curves = (body.height() - around) / count;
  for (const auto& members : panels) {
    const Box names = body.cut_top(names_height(members));
    const Box strips = body.cut_top(strips_height(members));
    const Box inner = draw_panel(plot, body.cut_top(curves + kAxisBelow, kPanelGap), series,
                                 members, counts, names);
    draw_strips(plot, {inner.left, strips.top, inner.right, strips.bottom}, series, members);
  }
}

}  // namespace chalcedony
